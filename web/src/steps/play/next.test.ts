import { describe, expect, test } from 'vitest'
import type { Pass } from '../../api/client'
import { nextChord } from './next'

const beat = 480
/** A pass of chords that last so many beats each. */
function pass(...chords: [name: string, beats: number][]): Pass {
  let tick = 0
  const marks = chords.map(([chord, count]) => {
    const mark = {
      tick,
      ticks: count * beat,
      chord,
      roman: 'I',
      at: tick,
      ...(chord === '' && { silent: true }),
    }
    tick += count * beat
    return mark
  })
  const beats = Array.from({ length: tick / beat }, (_, n) => ({
    ...{ tick: n * beat, bar: Math.floor(n / 4) + 1, beat: (n % 4) + 1, at: n * beat },
  }))
  const performance = { tempo: 100, beatTicks: beat, countIn: 0, end: tick, beats, chords: marks, notes: [] }
  return { performance, next: { chord: 'C7', roman: 'I' } } as unknown as Pass
}
const at = (p: Pass, n: number) => p.performance.beats[n]

describe('the next chord', () => {
  test('half a bar is counted too', () => {
    const p = pass(['C7', 2], ['F7', 2], ['G7', 4])
    expect(nextChord(p, 0, at(p, 0))).toMatchObject({ chord: 'F7', beats: 2, at: 960 })
    expect(nextChord(p, 1, at(p, 3))).toMatchObject({ chord: 'G7', beats: 1 })
  })
  test('a chord that goes on is not the next one', () => {
    const p = pass(['C7', 4], ['C7', 4], ['F7', 4])
    expect(nextChord(p, 0, at(p, 1))).toMatchObject({ chord: 'F7', beats: 7 })
  })
  test('after the last comes what the routine goes on with', () => {
    const p = pass(['F7', 4], ['G7', 4])
    expect(nextChord(p, 1, at(p, 6))).toMatchObject({ chord: 'C7', beats: 2, at: 0 })
    delete (p as { next?: unknown }).next
    expect(nextChord(p, 1, at(p, 6))).toBeUndefined()
  })
  test('silence is a change', () => {
    const p = pass(['C7', 4], ['', 4], ['C7', 4])
    expect(nextChord(p, 0, at(p, 0))).toMatchObject({ chord: 'N.C.', roman: '', beats: 4 })
    expect(nextChord(p, 1, at(p, 4))).toMatchObject({ chord: 'C7', beats: 4 })
  })
})
