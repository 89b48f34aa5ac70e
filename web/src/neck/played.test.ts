import { expect, test } from 'vitest'
import type { LiveNote } from '../api/client'
import type { Mark } from './marks'
import { withPlayed } from './played'

const mark = (string: number, fret: number, text: string): Mark => ({
  ...{ string, fret, text, form: 'tone', root: false, class: 'chordTone', spoken: text },
})
const played = (places: [number, number][]): LiveNote => ({
  ...{ midi: 64, cents: 0, note: 'E4' },
  places: places.map(([string, fret]) => ({ string, fret })),
})
const span = { low: 7, high: 10 }

test('what is played lights where the hand is, with the text that stands there', () => {
  const marks = [mark(3, 9, '3'), mark(4, 10, 'R')]
  const lit = withPlayed(
    marks,
    played([
      [1, 0],
      [3, 9],
      [4, 14],
    ]),
    span,
  )
  expect(lit.map((m) => [m.string, m.fret, m.text, m.lit ?? false])).toEqual([
    [4, 10, 'R', false],
    [3, 9, '3', true],
  ])
})

test('outside of the position the first place lights, with the name of the note', () => {
  const lit = withPlayed([mark(4, 10, 'R')], played([[1, 0]]), span)
  expect(lit.at(-1)).toMatchObject({ string: 1, fret: 0, text: 'E', lit: true })
})

test('while nothing is played the marks stay as they are', () => {
  const marks = [mark(4, 10, 'R')]
  expect(withPlayed(marks, undefined, span)).toBe(marks)
})
