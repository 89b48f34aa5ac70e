import { barAt, shifted } from './barlines'
import { mostOnsets, type TabLine } from './tab'

/** A line of tab as it is broken for the width there is, and the index of its first note among all. */
export interface BrokenLine {
  first: number
  line: TabLine
}

/** Ticks in groups of those that follow each other with the same key. */
function grouped(ticks: number[], keyOf: (tick: number) => number): number[][] {
  const groups: number[][] = []
  let last: number | undefined
  for (const tick of ticks) {
    const key = keyOf(tick)
    if (key === last) groups.at(-1)?.push(tick)
    else groups.push([tick])
    last = key
  }
  return groups
}

/** What stays together: the notes of a bar, of a beat where a bar has too many, or a single note. */
function pieces(line: TabLine, most: number): number[][] {
  const bar = (tick: number) => barAt(line.barLines, tick)
  const beat = (tick: number) => {
    const its = line.barLines[bar(tick)]
    return its ? Math.floor((tick - its.tick) / its.beatTicks) : 0
  }
  const onsets = [...new Set(line.events.map((e) => e.tick))]
  return grouped(onsets, bar).flatMap((inBar) =>
    inBar.length <= most
      ? [inBar]
      : grouped(inBar, beat).flatMap((inBeat) =>
          inBeat.length <= most ? [inBeat] : inBeat.map((tick) => [tick]),
        ),
  )
}

/** Breaks a tab into lines that have room for all their notes, rather between bars than within. */
export function brokenLines(line: TabLine, width: number): BrokenLine[] {
  const most = mostOnsets(width)
  const starts: number[] = []
  let held = Infinity
  for (const piece of pieces(line, most)) {
    if (held + piece.length > most) {
      starts.push(piece[0] ?? 0)
      held = 0
    }
    held += piece.length
  }
  if (starts.length <= 1) return [{ first: 0, line }]
  return starts.map((from, n) => {
    const to = starts[n + 1] ?? Infinity
    const origin = n === 0 ? 0 : beginning(line, from)
    return {
      first: line.events.findIndex((e) => e.tick >= from),
      line: {
        events: line.events
          .filter((e) => e.tick >= from && e.tick < to)
          .map((e) => ({ ...e, tick: e.tick - origin })),
        barLines: shifted(line.barLines, -origin),
      },
    }
  })
}

/** Where a line begins whose first note is this one: with its bar, if it is the first of the bar. */
function beginning(line: TabLine, tick: number): number {
  const bar = line.barLines[barAt(line.barLines, tick)]
  if (!bar || bar.tick > tick) return tick
  return line.events.some((e) => e.tick >= bar.tick && e.tick < tick) ? tick : bar.tick
}
