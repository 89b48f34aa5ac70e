import { describe, expect, test } from 'vitest'
import { mended } from './mended'
import { signs } from './spelling'

describe('signs', () => {
  test.each([
    ['Bb', 'B♭'],
    ['F#m7b5', 'F♯m7♭5'],
    ['Gbb', 'G♭♭'],
    ['b7', '♭7'],
    ['#11', '♯11'],
    ['bVII', '♭VII'],
    ['C7', 'C7'],
    ['Ebmaj7', 'E♭maj7'],
    ['Bb is the b7 of C7: home, rest on it.', 'B♭ is the ♭7 of C7: home, rest on it.'],
    ['in Ab major', 'in A♭ major'],
    ['Abe comes back', 'Abe comes back'],
    ['Be calm', 'Be calm'],
    ['A bend', 'A bend'],
  ])('%s is shown as %s', (text, want) => expect(signs(text)).toBe(want))

  test('what stands in quotes is a name and stays as it is', () => {
    expect(signs('"Abb b7 Eb" lies over Eb7')).toBe('"Abb b7 Eb" lies over E♭7')
    expect(signs('"The \\"Bb\\" one" in Bb')).toBe('"The "Bb" one" in B♭')
    expect(signs('“In Bb” is deleted')).toBe('“In Bb” is deleted')
    expect(signs('Db and "Db" and Db')).toBe('D♭ and "Db" and D♭')
  })

  test('a quote that never ends is no name', () => expect(signs('5" of Bb')).toBe('5" of B♭'))
})

describe('mending a text', () => {
  test.each([
    ['C7 F?', 4, 'F?', 'F', 'C7 F'],
    ['H7 C7', 1, 'H7', 'B7', 'B7 C7'],
    ['C7', 1, 'x', 'y', 'C7'],
    ['F? F?', 4, 'F?', 'F7', 'F? F7'],
  ])('%s at %i', (text, column, symbol, by, want) => expect(mended(text, column, symbol, by)).toBe(want))
})
