import { barsInRow } from '../../controls/rows'
import type { BarLine, Block, ChorusView } from '../../api/client'
import { beatsOf, endOf } from '../../tab/barlines'

/** Where ticks of a chorus stand on the time line: four bars of it at once, or fewer where there is less room. */
export interface Ruler {
  width: number
  /** Whether the rows have their names in front. */
  named: boolean
  from: number
  to: number
  x: (tick: number) => number
  /** How many ticks a distance on the line is. */
  ticks: (distance: number) => number
  bars: Pick<BarLine, 'tick' | 'ticks' | 'number'>[]
  beats: { tick: number; bar: boolean }[]
}

/** Narrower than this a line has two bars, and narrower than half of it one; no names stand in front. */
const fourBars = 880
const names = 88
const right = 8

/**
 * The bars around a bar that there is room for, fewer where it is looked at closer; before bar 1 as much
 * as the chorus begins early.
 */
export function rulerAt(
  of: Pick<ChorusView, 'blocks'>,
  bar: number,
  played: BarLine[],
  width: number,
  closer = 1,
): Ruler {
  const seen = width / closer
  const count = seen >= fourBars ? barsInRow : seen >= fourBars / 2 ? barsInRow / 2 : 1
  const named = width >= fourBars
  const left = named ? names : right
  const first = Math.floor((bar - 1) / count) * count
  const bars = played.slice(first, first + count)
  const early = Math.min(0, ...of.blocks.map((b) => b.start))
  const beat = bars[0]?.beatTicks ?? 1
  const begins = bars[0]?.tick ?? 0
  const from = begins === 0 ? Math.floor(early / beat) * beat : begins
  const to = endOf(bars.at(-1))
  const scale = (width - left - right) / Math.max(to - from, 1)
  const beats = []
  for (let tick = from; tick < begins; tick += beat) beats.push({ tick, bar: false })
  for (const { tick, beat } of beatsOf(bars)) beats.push({ tick, bar: beat === 1 })
  return {
    width,
    named,
    from,
    to,
    x: (tick) => left + (tick - from) * scale,
    ticks: (d) => d / scale,
    bars,
    beats,
  }
}

/** The part of a block that is on the line, or nothing. */
export function onLine(ruler: Ruler, block: Block, shift = 0, longer = 0) {
  const start = Math.max(block.start + shift, ruler.from)
  const end = Math.min(block.start + block.ticks + shift + longer, ruler.to)
  return end > start ? { x: ruler.x(start), width: ruler.x(end) - ruler.x(start) } : undefined
}
