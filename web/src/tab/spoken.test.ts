import { expect, test } from 'vitest'
import type { WrittenLick } from '../api/client'
import { spokenPlace } from './spoken'

const written = (start = 0) =>
  ({
    tab: {
      ...{ barTicks: 1920, beatTicks: 480, start },
      events: [
        { tick: 480, string: 2, spoken: 'B, 7 of C, string 2, fret 12' },
        { tick: 480, string: 3, spoken: 'G, 5 of C, string 3, fret 12' },
      ],
    },
  }) as unknown as WrittenLick

test.each([
  [0, 3, 'string 3, bar 1 beat 1, empty'],
  [480, 2, 'string 2, bar 1 beat 2, B, 7 of C, string 2, fret 12, 1 on other strings'],
  [480, 1, 'string 1, bar 1 beat 2, empty, 2 on other strings'],
  [720, 1, 'string 1, bar 1 beat 2 and a half, empty'],
  [800, 1, 'string 1, bar 1 beat 2 and 2 thirds, empty'],
  [1920 + 120, 6, 'string 6, bar 2 beat 1 and a quarter, empty'],
])('at tick %i on string %i it reads %s', (tick, string, text) => {
  expect(spokenPlace(written(), tick, string)).toBe(text)
})

test('before bar 1 it is the pickup', () => {
  expect(spokenPlace(written(1920), -480, 4)).toBe('string 4, pickup beat 4, empty')
})
