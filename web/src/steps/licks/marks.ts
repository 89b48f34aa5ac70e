import type { LineEvent, Place, PlacedTone } from '../../api/client'
import { emptyMarks, lineMarks, placeKey, toneMark, type Mark } from '../../neck/marks'

/** A lick that is written, with places to write more, and the place under the cursor. */
export function writtenMarks(
  events: LineEvent[],
  strings: number,
  span: { low: number; high: number },
  sounding: number | undefined,
  under: Place | undefined,
): Mark[] {
  const played = lineMarks(events, sounding)
  const marked = played.map((mark) =>
    under && placeKey(under) === placeKey(mark) ? { ...mark, chosen: true } : mark,
  )
  return [...emptyMarks(strings, span, played), ...marked]
}

/** A line, and the other tones that it might land on. */
export function ledMarks(events: LineEvent[], targets: PlacedTone[], sounding: number | undefined): Mark[] {
  const played = lineMarks(events, sounding)
  const taken = new Set(played.map(placeKey))
  const others = targets
    .filter((tone) => !taken.has(placeKey(tone)))
    .map((tone) => ({
      ...toneMark(tone, 'ghost' as const),
      ...{ root: false, small: undefined, spoken: `land on ${tone.spoken}` },
    }))
  return [...played, ...others]
}

/** The frets to be drawn wide: the position, or where what is shown lies outside it those it lies on. */
export function spanOf<Span extends { low: number; high: number }>(
  position: Span,
  frets: { low: number; high: number } | undefined,
): Span | { low: number; core: number; coreEnd: number; high: number } {
  if (!frets?.high || (frets.low >= position.low && frets.high <= position.high)) return position
  const last = Math.max(frets.high, frets.low + 3)
  return { low: Math.max(frets.low - 1, 0), core: frets.low, coreEnd: last, high: last + 1 }
}
