import { expect, test } from 'vitest'
import type { LiveNote, Question } from '../../api/client'
import { heardPart } from './heardpart'

const note: LiveNote = {
  ...{ midi: 59, cents: 0, note: 'B3' },
  places: [
    { string: 2, fret: 0 },
    { string: 3, fret: 4 },
    { string: 4, fret: 9 },
    { string: 5, fret: 14 },
  ],
}
const question = (needsPlace: boolean, low: number, core: number) =>
  ({ needsPlace, position: { low, core, coreEnd: core + 3, high: core + 4 } }) as Question

test('a note that was heard is its pitch where no place is asked for', () => {
  expect(heardPart(note, question(false, 6, 7))).toEqual({ midi: 59 })
})
test('where a place is asked for it is the one that the hand has', () => {
  expect(heardPart(note, question(true, 6, 7))).toEqual({ place: { string: 4, fret: 9 } })
  expect(heardPart(note, question(true, 4, 5))).toEqual({ place: { string: 3, fret: 4 } })
  expect(heardPart(note, question(true, 16, 17))).toBeUndefined()
})
test('of two places in the position the one in the core frets is meant', () => {
  const twice = {
    ...note,
    places: [
      { string: 3, fret: 4 },
      { string: 4, fret: 8 },
    ],
  }
  expect(heardPart(twice, question(true, 4, 5))).toEqual({ place: { string: 4, fret: 8 } })
})
