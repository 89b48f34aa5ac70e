import type { Tab } from '../../api/client'
import type { TabLine } from '../../tab/tab'

/** A row of tab: some whole bars, and the index of its first note among all. */
export interface TabRow {
  first: number
  /** Its first bar, from 1. */
  bar: number
  line: TabLine
}

/** A row has at most so many notes in time; more would touch. */
const most = 20

/** A tab in rows of as many whole bars as can be read; what begins at once counts once. */
export function rowsOf(tab: Tab): TabRow[] {
  const { barTicks, beatTicks } = tab
  const bars = Math.max(...tab.events.map((e) => Math.floor(e.tick / barTicks) + 1), 0)
  const counts = Array.from({ length: bars }, (_, bar) => {
    const inside = tab.events.filter((e) => Math.floor(e.tick / barTicks) === bar)
    return new Set(inside.map((e) => e.tick)).size
  })
  const each = Math.max(1, Math.min(4, Math.floor(most / Math.max(...counts, 1))))
  const rows: TabRow[] = []
  for (let bar = 0; bar < bars; bar += each) {
    const from = bar * barTicks
    const first = tab.events.findIndex((e) => e.tick >= from)
    const events = tab.events
      .filter((e) => e.tick >= from && e.tick < from + each * barTicks)
      .map((e) => ({ ...e, tick: e.tick - from }))
    if (first < 0 || !events.length) continue
    const line = { events, start: tab.start + from, barTicks, beatTicks }
    rows.push({ first, bar: tab.firstBar + bar, line })
  }
  return rows
}
