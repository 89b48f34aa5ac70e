import type { Tab } from '../../api/client'
import { barAt, endOf, shifted } from '../../tab/barlines'
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
  const bars = tab.barLines
  const counts = bars.map((_, bar) => {
    const inside = tab.events.filter((e) => barAt(bars, e.tick) === bar)
    return new Set(inside.map((e) => e.tick)).size
  })
  const each = Math.max(1, Math.min(4, Math.floor(most / Math.max(...counts, 1))))
  const rows: TabRow[] = []
  for (let bar = 0; bar < bars.length; bar += each) {
    const here = bars.slice(bar, bar + each)
    const from = here[0]?.tick ?? 0
    const first = tab.events.findIndex((e) => e.tick >= from)
    const events = tab.events
      .filter((e) => e.tick >= from && e.tick < endOf(here.at(-1)))
      .map((e) => ({ ...e, tick: e.tick - from }))
    if (first < 0 || !events.length) continue
    rows.push({ first, bar: here[0]?.number ?? 1, line: { events, barLines: shifted(here, -from) } })
  }
  return rows
}
