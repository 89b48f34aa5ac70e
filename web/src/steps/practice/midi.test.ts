import { expect, test } from 'vitest'
import { partOf, struckNote } from './midi'

const open = [64, 59, 55, 50, 45, 40]

test('what a message strikes', () => {
  expect(struckNote([0x90, 60, 100])).toEqual({ midi: 60, channel: 1 })
  expect(struckNote([0x95, 40, 1])).toEqual({ midi: 40, channel: 6 })
  // A note that ends, one without loudness, a pedal, nothing.
  for (const message of [[0x80, 60, 100], [0x90, 60, 0], [0xb0, 64, 127], []])
    expect(struckNote(message)).toBeUndefined()
})

test('a note is a place where strings send apart, and a pitch else', () => {
  expect(partOf({ midi: 67, channel: 2 }, true, open, 22)).toEqual({ place: { string: 2, fret: 8 } })
  expect(partOf({ midi: 67, channel: 2 }, false, open, 22)).toEqual({ midi: 67 })
  expect(partOf({ midi: 50, channel: 1 }, true, open, 22)).toEqual({ midi: 50 })
  expect(partOf({ midi: 60, channel: 9 }, true, open, 22)).toEqual({ midi: 60 })
})
