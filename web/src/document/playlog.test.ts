import { expect, test } from 'vitest'
import { PlayedTime } from './playlog'

test('what was played is added up, pauses left out', () => {
  const played = new PlayedTime()
  const at = new Date(2026, 2, 1, 19)
  played.start(1000, at)
  played.start(2000)
  played.stop(21_000)
  played.start(60_000)
  expect(played.take(75_000)).toEqual({ began: at, seconds: 35 })
  expect(played.take(80_000)).toBeUndefined()
})

test('what was only listened to is not noted', () => {
  const played = new PlayedTime()
  played.start(0)
  expect(played.take(29_000)).toBeUndefined()
  played.start(30_000)
  expect(played.take(31_000)).toBeUndefined()
})
