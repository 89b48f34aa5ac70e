import type { BarLine } from '../api/client'

/** The bar that a tick lies in, by its index; the first one's for what comes before it. */
export function barAt(bars: Pick<BarLine, 'tick'>[], tick: number): number {
  return Math.max(
    bars.findLastIndex((bar) => bar.tick <= tick),
    0,
  )
}

/** Where a bar ends. */
export const endOf = (bar: Pick<BarLine, 'tick' | 'ticks'> | undefined) => (bar ? bar.tick + bar.ticks : 0)

/** The counted beats of bars, each with its number in its bar. */
export function beatsOf(
  bars: Pick<BarLine, 'tick' | 'ticks' | 'beatTicks'>[],
): { tick: number; beat: number }[] {
  return bars.flatMap((bar) =>
    Array.from({ length: bar.ticks / bar.beatTicks }, (_, n) => ({
      tick: bar.tick + n * bar.beatTicks,
      beat: n + 1,
    })),
  )
}

/** The bars with their ticks counted from another one. */
export const shifted = <T extends Pick<BarLine, 'tick'>>(bars: T[], by: number): T[] =>
  bars.map((bar) => ({ ...bar, tick: bar.tick + by }))
