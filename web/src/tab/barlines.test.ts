import { describe, expect, it } from 'vitest'
import { barAt, beatsOf, endOf, shifted } from './barlines'

/** A bar of 2/4 between two of 4/4, then one of 12/8. */
const bars = [
  { tick: 0, ticks: 1920, beatTicks: 480 },
  { tick: 1920, ticks: 960, beatTicks: 480 },
  { tick: 2880, ticks: 1920, beatTicks: 480 },
  { tick: 4800, ticks: 2880, beatTicks: 720 },
]

describe('bar lines', () => {
  it('finds the bar of a tick where bars differ in length', () => {
    expect([-480, 0, 1919, 1920, 2879, 2880, 4800, 9999].map((tick) => barAt(bars, tick))).toEqual([
      0, 0, 0, 1, 1, 2, 3, 3,
    ])
    expect(endOf(bars[1])).toBe(2880)
    expect(endOf(undefined)).toBe(0)
  })
  it('counts the beats of each bar anew', () => {
    expect(beatsOf(bars).map((b) => b.beat)).toEqual([1, 2, 3, 4, 1, 2, 1, 2, 3, 4, 1, 2, 3, 4])
    expect(beatsOf(bars).at(-1)?.tick).toBe(4800 + 3 * 720)
  })
  it('shifts bars and leaves the others alone', () => {
    expect(shifted(bars, -1920)[1]).toEqual({ tick: 0, ticks: 960, beatTicks: 480 })
    expect(bars[1]?.tick).toBe(1920)
  })
})
