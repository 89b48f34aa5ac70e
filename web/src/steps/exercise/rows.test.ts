import { describe, expect, it } from 'vitest'
import type { LineEvent, Tab } from '../../api/client'
import { rowsOf } from './rows'

const note = (tick: number): LineEvent => ({ tick, ticks: 240 }) as LineEvent
const tab = (ticks: number[]): Tab =>
  ({
    barLines: Array.from({ length: 6 }, (_, n) => ({
      tick: n * 1920,
      ticks: 1920,
      beatTicks: 480,
      number: n + 2,
    })),
    events: ticks.map(note),
  }) as Tab

describe('rows of tab', () => {
  it('hold whole bars, as many as can be read', () => {
    const eighths = Array.from({ length: 32 }, (_, n) => n * 240)
    const rows = rowsOf(tab(eighths))
    expect(rows.map((row) => [row.first, row.bar, row.line.events.length])).toEqual([
      [0, 2, 16],
      [16, 4, 16],
    ])
    expect(rows[1]!.line.events[0]!.tick).toBe(0)
    expect(rows[1]!.line.barLines.map((b) => b.tick)).toEqual([0, 1920])
  })
  it('leave out bars of silence, and count notes at once as one', () => {
    const together = [0, 0, 480, 480, 960, 960, 5 * 1920, 5 * 1920]
    const rows = rowsOf(tab(together))
    expect(rows.map((row) => [row.first, row.line.events.length])).toEqual([
      [0, 6],
      [6, 2],
    ])
  })
})
