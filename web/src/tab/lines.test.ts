import { describe, expect, test } from 'vitest'
import type { LineEvent } from '../api/client'
import { brokenLines } from './lines'
import { layOutTab, mostOnsets } from './tab'

const bar = (n: number) => ({ tick: n * 1920, ticks: 1920, beatTicks: 480 })
const at = (...ticks: number[]) => ticks.map((tick) => ({ tick, ticks: 120 }) as LineEvent)
/** Notes of one length through whole bars. */
const even = (bars: number, ticks: number) =>
  at(...Array.from({ length: (bars * 1920) / ticks }, (_, n) => n * ticks))

describe('a tab in lines', () => {
  test('is one line where there is room', () => {
    const line = { events: even(2, 240), barLines: [bar(0), bar(1)] }
    expect(brokenLines(line, 838)).toEqual([{ first: 0, line }])
  })

  test('breaks between bars, and counts from the bar line of each', () => {
    const lines = brokenLines({ events: even(4, 240), barLines: [0, 1, 2, 3].map(bar) }, 760)
    expect(mostOnsets(760)).toBe(17)
    expect(lines.map((l) => l.first)).toEqual([0, 16])
    expect(lines[1]?.line.events.map((e) => e.tick).slice(0, 3)).toEqual([0, 240, 480])
    expect(lines[1]?.line.barLines[2]?.tick).toBe(0)
  })

  test('a bar that begins with a rest keeps its bar line', () => {
    const events = [...even(1, 240), ...at(1920 + 480, 1920 + 960)]
    const lines = brokenLines({ events, barLines: [bar(0), bar(1)] }, 420)
    expect(lines.at(-1)?.line.events[0]?.tick).toBe(480)
  })

  test('breaks a crowded bar between beats, a crowded beat between notes', () => {
    const sixteenths = brokenLines({ events: even(1, 120), barLines: [bar(0)] }, 440)
    expect(mostOnsets(440)).toBe(9)
    expect(sixteenths.map((l) => l.first)).toEqual([0, 8])
    const run = brokenLines({ events: even(1, 40), barLines: [bar(0)] }, 300)
    expect(run.map((l) => l.first)).toEqual([0, 5, 10, 15, 20, 25, 30, 35, 40, 45])
  })

  test('what is struck together counts once and stays together', () => {
    const events = at(0, 0, 0, 480, 480, 960)
    expect(brokenLines({ events, barLines: [bar(0)] }, 200)).toHaveLength(1)
    expect(brokenLines({ events, barLines: [bar(0)] }, 160).map((l) => l.first)).toEqual([0, 5])
  })

  test.each([320, 390, 520, 838, 1400])('at %i every note is there once and has its room', (width) => {
    for (const ticks of [480, 240, 160, 120, 80]) {
      const events = even(3, ticks)
      const lines = brokenLines({ events, barLines: [0, 1, 2].map(bar) }, width)
      expect(lines.map((l) => l.first)).toEqual(
        lines.map((_, n) => lines.slice(0, n).reduce((sum, l) => sum + l.line.events.length, 0)),
      )
      expect(lines.reduce((sum, l) => sum + l.line.events.length, 0)).toBe(events.length)
      for (const { line } of lines) {
        const { x } = layOutTab(line, width)
        expect(x[0]).toBeGreaterThanOrEqual(46)
        expect(x.at(-1)).toBeLessThanOrEqual(width - 30)
        for (let n = 1; n < x.length; n++) expect((x[n] ?? 0) - (x[n - 1] ?? 0)).toBeGreaterThanOrEqual(39.9)
      }
    }
  })
})
