import { barsInRow, firstOfRow } from '../../controls/rows'
import type { Block, ChorusView } from '../../api/client'

/** Where ticks of a chorus stand on the time line: four bars of it at once. */
export interface Ruler {
  from: number
  to: number
  x: (tick: number) => number
  /** How many ticks a distance on the line is. */
  ticks: (distance: number) => number
  bars: { tick: number; number: number }[]
  beats: number[]
}

export const lineWidth = 1112
const left = 76
const right = 8

/** The four bars around a bar; before bar 1 as much as the chorus begins early. */
export function rulerAt(of: ChorusView, bar: number, bars: number): Ruler {
  const { barTicks, beatTicks } = of.tab
  const first = firstOfRow(bar) - 1
  const early = Math.min(0, ...of.blocks.map((b) => b.start))
  const from = first === 0 ? Math.floor(early / beatTicks) * beatTicks : first * barTicks
  const last = Math.min(first + barsInRow, bars)
  const to = last * barTicks
  const scale = (lineWidth - left - right) / (to - from)
  const all = []
  for (let n = first; n < last; n++) all.push({ tick: n * barTicks, number: n + 1 })
  const beats = []
  for (let tick = from; tick < to; tick += beatTicks) beats.push(tick)
  return { from, to, x: (tick) => left + (tick - from) * scale, ticks: (d) => d / scale, bars: all, beats }
}

/** The part of a block that is on the line, or nothing. */
export function onLine(ruler: Ruler, block: Block, shift = 0, longer = 0) {
  const start = Math.max(block.start + shift, ruler.from)
  const end = Math.min(block.start + block.ticks + shift + longer, ruler.to)
  return end > start ? { x: ruler.x(start), width: ruler.x(end) - ruler.x(start) } : undefined
}
