import type { WrittenBar } from '../../api/client'

/**
 * A row of the sheet: up to four bars, begun anew by each section. Behind the
 * last bar is a place without one, where a new bar can be written.
 */
export interface Row {
  section: string
  bars: { bar: WrittenBar | undefined; index: number }[]
}

const barsInARow = 4

export function rowsOf(bars: WrittenBar[]): Row[] {
  const rows: Row[] = []
  ;[...bars, undefined].forEach((bar, index) => {
    const row = rows.at(-1)
    if (!row || bar?.section || row.bars.length === barsInARow) {
      rows.push({ section: bar?.section ?? '', bars: [{ bar, index }] })
    } else {
      row.bars.push({ bar, index })
    }
  })
  return rows
}

/** The bar a row above or below, as near as the row has one. */
export function vertically(rows: Row[], from: number, by: number): number {
  const row = rows.findIndex((r) => r.bars.some((b) => b.index === from))
  const column = rows[row]?.bars.findIndex((b) => b.index === from) ?? 0
  const target = rows[row + by]?.bars
  return target ? (target[Math.min(column, target.length - 1)]?.index ?? from) : from
}
