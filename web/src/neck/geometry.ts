import type { Neck, Place } from '../api/client'

/** The frets that are drawn wide, and those of them that are the core. */
export interface Span {
  low: number
  high: number
  core: number
  coreEnd: number
}

/** Where strings and frets lie in a drawing of the given width and height. */
export interface Geometry {
  width: number
  height: number
  /** The x of the nut, and of the fret wire that ends each fret. */
  nut: number
  wire: (fret: number) => number
  /** Where a finger goes: the middle of a fret, or just behind the nut. */
  x: (fret: number) => number
  y: (string: number) => number
  /** How wide a fret is; before the nut there is as much room as a note needs. */
  room: (fret: number) => number
  /** The uppermost and the lowest string. */
  top: number
  bottom: number
  /** Whether there is so little room that only the frets up to the span's last are drawn. */
  tight: boolean
  /** How many frets are drawn. */
  frets: number
  /** Where something lies that is so far from the nut's end. */
  at: (x: number) => number
  spacing: number
}

const margin = { top: 29, bottom: 40, right: 4 }
/** Room before the nut for the names of the strings, and for what is played open. */
const beforeNut = { wide: 86, tight: 58 }
const openRoom = 73
/** Below this width a neck ends with the frets of its span, and what lies before them is folded. */
const tightWidth = 620
const narrowFret = { most: 25, least: 6 }

/** What is pressed with a finger needs its strings so far apart. */
export const fingerSpacing = 44
/** A fret under the hand has at least this much room. */
const leastFret = 44

/**
 * How wide a neck is drawn at least, though less of it may be seen at once: with room for a finger
 * in each fret of its span.
 */
export function leastWidth(instrument: Neck, span: Span, seen: number): number {
  const { left, frets, narrow, wideCount } = folded(instrument, span, seen)
  return left + margin.right + (frets - wideCount) * narrow + wideCount * leastFret
}

/** What of a neck is drawn narrow or left out where so much of it is seen at once. */
function folded(instrument: Neck, span: Span, seen: number) {
  const tight = seen < tightWidth
  return {
    tight,
    left: tight ? beforeNut.tight : beforeNut.wide,
    // What is written on a longer neck than this is drawn on as long a one.
    frets: tight ? span.high : Math.max(instrument.frets, span.high),
    wideCount: span.high - Math.max(span.low, 1) + 1,
    narrow: Math.min(narrowFret.most, Math.max(narrowFret.least, seen / 46)),
  }
}

/** How the neck is turned: mirrored for left hands, its lowest string on top. */
export interface Turn {
  mirrored: boolean
  lowOnTop: boolean
}

/**
 * Lays out a neck for a width: the span's frets wide, the others narrow but present. What of it is
 * seen at once may be less: then it is folded as for that.
 */
export function layOut(
  instrument: Neck,
  span: Span,
  width: number,
  spacing: number,
  turn: Turn,
  seen = width,
): Geometry {
  const first = Math.max(span.low, 1)
  const { tight, left, frets, wideCount, narrow } = folded(instrument, span, seen)
  const room = width - left - margin.right
  const wide = (room - (frets - wideCount) * narrow) / wideCount
  const wires = [left]
  for (let fret = 1; fret <= frets; fret++) {
    wires.push((wires[fret - 1] ?? 0) + (fret >= first && fret <= span.high ? wide : narrow))
  }
  const at = (x: number) => (turn.mirrored ? width - x : x)
  const wire = (fret: number) => at(wires[fret] ?? 0)
  const last = instrument.strings.length - 1
  return {
    width,
    height: margin.top + (instrument.strings.length - 1) * spacing + margin.bottom,
    nut: at(left),
    frets,
    tight,
    wire,
    at,
    x: (fret) => (fret === 0 ? at(left - (tight ? 26 : 40)) : (wire(fret - 1) + wire(fret)) / 2),
    room: (fret) => (fret === 0 ? openRoom : Math.abs(wire(fret) - wire(fret - 1))),
    y: (string) => margin.top + (turn.lowOnTop ? last + 1 - string : string - 1) * spacing,
    top: margin.top,
    bottom: margin.top + last * spacing,
    spacing,
  }
}

export const samePlace = (a: Place, b: Place) => a.string === b.string && a.fret === b.fret

/** The nearest of the places that lies in the direction of an arrow key. */
export function neighbour<T extends Place>(
  all: T[],
  from: Place,
  pressed: string,
  turn: Turn,
): T | undefined {
  const turned: Record<string, string> = {
    ...(turn.mirrored ? { ArrowLeft: 'ArrowRight', ArrowRight: 'ArrowLeft' } : {}),
    ...(turn.lowOnTop ? { ArrowUp: 'ArrowDown', ArrowDown: 'ArrowUp' } : {}),
  }
  const key = turned[pressed] ?? pressed
  const towards = {
    ArrowLeft: (p: Place) => p.string === from.string && p.fret < from.fret,
    ArrowRight: (p: Place) => p.string === from.string && p.fret > from.fret,
    ArrowUp: (p: Place) => p.string < from.string,
    ArrowDown: (p: Place) => p.string > from.string,
  }[key]
  if (!towards) return undefined
  const distance = (p: Place) => Math.abs(p.string - from.string) * 4 + Math.abs(p.fret - from.fret)
  return all.filter(towards).sort((a, b) => distance(a) - distance(b))[0]
}
