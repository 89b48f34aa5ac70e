import { expect, test } from 'vitest'
import { uses, words } from './words'

const named = (name: string) => words.find((one) => one.word === name)!

test.each([
  ['Bar 4 → 5 lands on A', 'land', true],
  ['an island', 'land', false],
  ['Chord tones of the box', 'chord tone', true],
  ['N.C. in bar 3', 'N.C.', true],
  ['re-roll bar 1', 're-roll', true],
  ['the boxer', 'box', false],
  ['♭7 of C7, a guide tone', 'guide tones', true],
])('%s: whether it uses %s', (text, word, is) => expect(uses(text, named(word))).toBe(is))

test('no word stands twice, and each is explained without itself alone', () => {
  const all = words.flatMap(({ word, also = [] }) => [word, ...also]).map((w) => w.toLowerCase())
  expect(all.filter((one, n) => all.indexOf(one) !== n)).toEqual([])
  for (const { word, says } of words) {
    expect(says.length, word).toBeGreaterThan(12)
    expect(says.endsWith('.'), word).toBe(false)
  }
})

test('they stand by the alphabet', () => {
  const keys = words.map(({ word }) => word.toLowerCase())
  expect(keys).toEqual([...keys].sort((a, b) => a.localeCompare(b)))
})
