import type { WrittenLick } from '../api/client'

/** How many bars of a lick are shown at once: one where two would be too narrow to read. */
const barsShown = (width: number) => (width >= 520 ? 2 : 1)

/** A bar line takes some room of its own, so that what stands on beat 1 is not on it. */
const lead = 20
const left = 40
const right = 12

/** The bars that are shown, and where their ticks stand; time runs evenly in them. */
export interface Grid {
  /** The first tick that is shown, and the first that is not. */
  from: number
  to: number
  barTicks: number
  bars: { tick: number; number: number }[]
  x: (tick: number) => number
}

/** The bars around a tick of the lick. */
export function gridAt(written: WrittenLick, tick: number, width: number): Grid {
  const { barTicks, start } = written.tab
  const shown = barsShown(width)
  const page = Math.floor((tick + start) / barTicks / shown) * shown
  const from = page * barTicks - start
  const barWidth = (width - left - right) / shown
  const x = (at: number) => {
    const bar = Math.floor((at - from) / barTicks)
    const into = (at - from - bar * barTicks) / barTicks
    return left + bar * barWidth + lead + into * (barWidth - lead)
  }
  const bars = Array.from({ length: shown }, (_, n) => ({
    tick: from + n * barTicks,
    number: page + n + 1 - Math.round(start / barTicks),
  }))
  return { from, to: from + shown * barTicks, barTicks, bars, x }
}
