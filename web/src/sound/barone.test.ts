import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { followPasses, type HeardPass } from './barone'
import type { usePlayer } from './player'
import type { Chunk } from './transport'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

const chunk = (countIn: number) =>
  ({
    performance: { countIn, tempo: 120, beatTicks: 480, end: 7680, notes: [], chords: [] },
  }) as unknown as Chunk

/** A band that began so many seconds after what comes in, and is now at the tick its chunk says. */
function band(speed = 100) {
  const now: { seconds: number; at?: { tick: number; chunk: Chunk } } = { seconds: 0 }
  const player = { sent: () => now.at, speed } as unknown as ReturnType<typeof usePlayer>
  return { now, player }
}

test('the start of each chorus is the middle of its readings', () => {
  const { now, player } = band()
  let passes: HeardPass[] = []
  const end = followPasses(
    player,
    () => now.seconds,
    (heard) => (passes = heard),
  )
  const first = chunk(1920)
  const second = chunk(0)
  vi.advanceTimersByTime(150)
  expect(passes).toEqual([])
  // At 120 a tick of 480 to a beat lasts 1/960 s; bar 1 begins at 3 s, read 10 ms too early and too late in turn.
  for (const [seconds, off] of [
    [2, -0.01],
    [3, 0.01],
    [4, 0],
  ] as const) {
    now.seconds = seconds + off
    now.at = { tick: 1920 + (seconds - 3) * 960, chunk: first }
    vi.advanceTimersByTime(150)
  }
  expect(passes).toHaveLength(1)
  expect(passes[0]!.start).toBeCloseTo(3, 6)
  expect(passes[0]!.perTick).toBeCloseTo(1 / 960, 9)
  now.seconds = 11.5
  now.at = { tick: 480, chunk: second }
  vi.advanceTimersByTime(150)
  expect(passes.map((pass) => pass.start)).toEqual([expect.closeTo(3, 6), expect.closeTo(11, 6)])
  end()
  now.seconds = 12
  now.at = { tick: 480, chunk: chunk(0) }
  vi.advanceTimersByTime(1000)
  expect(passes).toHaveLength(2)
})

test('a slower band has longer ticks, and nothing is read before anything comes in', () => {
  const { now, player } = band(50)
  let passes: HeardPass[] = []
  const end = followPasses(
    player,
    () => now.seconds,
    (heard) => (passes = heard),
  )
  now.at = { tick: 0, chunk: chunk(0) }
  vi.advanceTimersByTime(150)
  expect(passes).toEqual([])
  now.seconds = 5
  now.at = { tick: 960, chunk: now.at.chunk }
  vi.advanceTimersByTime(150)
  expect(passes[0]!.start).toBeCloseTo(3, 6)
  expect(passes[0]!.speed).toBe(50)
  end()
})

test('a chorus that goes round again begins anew', () => {
  const { now, player } = band()
  let passes: HeardPass[] = []
  const end = followPasses(
    player,
    () => now.seconds,
    (heard) => (passes = heard),
  )
  const looped = chunk(0)
  for (const [seconds, tick] of [
    [1, 0],
    [2, 960],
    [3, 0],
    [4, 960],
  ] as const) {
    now.seconds = seconds
    now.at = { tick, chunk: looped }
    vi.advanceTimersByTime(150)
  }
  expect(passes.map((pass) => pass.start)).toEqual([1, 3])
  end()
})
