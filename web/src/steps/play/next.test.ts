import { describe, expect, test } from 'vitest'
import type { Pass, StageSpan } from '../../api/client'
import { chordAt, nextChord } from './next'

const beat = 480
/** A pass of chords that last so many beats each, each followed by the next, the last by C7. */
function pass(...chords: [name: string, beats: number][]): Pass {
  let tick = 0
  const stage: StageSpan[] = chords.map(([chord, count]) => {
    const span = { tick, chord, roman: 'I', at: tick }
    tick += count * beat
    return span
  })
  stage.forEach((span, n) => {
    const { tick: comes, at, chord, roman } = stage[n + 1] ?? { tick, at: 0, chord: 'C7', roman: 'I' }
    span.next = { tick: comes, at, chord, roman, bar: 1 }
  })
  const beats = Array.from({ length: tick / beat }, (_, n) => ({
    ...{ tick: n * beat, bar: Math.floor(n / 4) + 1, beat: (n % 4) + 1, at: n * beat },
  }))
  const performance = { tempo: 100, beatTicks: beat, countIn: 0, end: tick, beats, chords: [], notes: [] }
  return { performance, stage } as unknown as Pass
}
const at = (p: Pass, n: number) => p.performance.beats[n]

describe('what comes next', () => {
  test('half a bar is counted too', () => {
    const p = pass(['C7', 2], ['F7', 2], ['G7', 4])
    expect(nextChord(p, 0, at(p, 0))).toMatchObject({ chord: 'F7', beats: 2, at: 960 })
    expect(nextChord(p, 1, at(p, 3))).toMatchObject({ chord: 'G7', beats: 1 })
  })
  test('after the last comes what the routine goes on with, or nothing', () => {
    const p = pass(['F7', 4], ['G7', 4])
    expect(nextChord(p, 1, at(p, 6))).toMatchObject({ chord: 'C7', beats: 2, at: 0 })
    delete p.stage[1]!.next
    expect(nextChord(p, 1, at(p, 6))).toBeUndefined()
  })
  test('which chord holds is found by the beat that is heard, before the first one too', () => {
    const p = pass(['C7', 2], ['F7', 2], ['G7', 4])
    expect([-480, 0, 959, 960, 1919, 1920, 9999].map((tick) => chordAt(p, tick))).toEqual([
      0, 0, 0, 1, 1, 2, 2,
    ])
  })
})
