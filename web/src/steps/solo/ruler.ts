import { barsInRow, firstOfRow } from '../../controls/rows'
import type { BarLine, Block, ChorusView } from '../../api/client'
import { beatsOf, endOf } from '../../tab/barlines'

/** Where ticks of a chorus stand on the time line: four bars of it at once. */
export interface Ruler {
  from: number
  to: number
  x: (tick: number) => number
  /** How many ticks a distance on the line is. */
  ticks: (distance: number) => number
  bars: Pick<BarLine, 'tick' | 'ticks' | 'number'>[]
  beats: { tick: number; bar: boolean }[]
}

export const lineWidth = 1112
const left = 76
const right = 8

/** The four bars around a bar; before bar 1 as much as the chorus begins early. */
export function rulerAt(of: Pick<ChorusView, 'blocks'>, bar: number, played: BarLine[]): Ruler {
  const bars = played.slice(firstOfRow(bar) - 1, firstOfRow(bar) - 1 + barsInRow)
  const early = Math.min(0, ...of.blocks.map((b) => b.start))
  const beat = bars[0]?.beatTicks ?? 1
  const begins = bars[0]?.tick ?? 0
  const from = begins === 0 ? Math.floor(early / beat) * beat : begins
  const to = endOf(bars.at(-1))
  const scale = (lineWidth - left - right) / Math.max(to - from, 1)
  const beats = []
  for (let tick = from; tick < begins; tick += beat) beats.push({ tick, bar: false })
  for (const { tick, beat } of beatsOf(bars)) beats.push({ tick, bar: beat === 1 })
  return { from, to, x: (tick) => left + (tick - from) * scale, ticks: (d) => d / scale, bars, beats }
}

/** The part of a block that is on the line, or nothing. */
export function onLine(ruler: Ruler, block: Block, shift = 0, longer = 0) {
  const start = Math.max(block.start + shift, ruler.from)
  const end = Math.min(block.start + block.ticks + shift + longer, ruler.to)
  return end > start ? { x: ruler.x(start), width: ruler.x(end) - ruler.x(start) } : undefined
}
