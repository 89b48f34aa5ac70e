import { describe, expect, it } from 'vitest'
import { rampSpeed } from './lines'

describe('a ramp', () => {
  it('rises by its step each time round, and stays where it wants to be', () => {
    const ramp = { from: 60, to: 100, by: 15 }
    expect([0, 1, 2, 3, 4].map((round) => rampSpeed(ramp, round))).toEqual([60, 75, 90, 100, 100])
  })
})
