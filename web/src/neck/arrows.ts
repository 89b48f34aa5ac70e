import type { Place } from '../api/client'
import type { Geometry } from './geometry'
import { placeKey, type Arrow, type Mark } from './marks'

/** A mark in a fret with less room than this is drawn as narrow as can be. */
const tightFret = 30
const narrowest = 24

/** How large a mark is drawn in a fret with so much room: as wide as its text needs, if there is. */
export function markSize(mark: Mark, room: number) {
  const w = mark.second
    ? 62
    : mark.form === 'ghost'
      ? 34
      : mark.text.length > 2 || (mark.small ?? '').length > 1
        ? 52 + 4 * (mark.small ?? '').length
        : 46
  return { w: Math.min(w, room < tightFret ? narrowest : room - 3), h: mark.form === 'ghost' ? 18 : 26 }
}

/** An arc from pebble to pebble, bowed to one side so that arrows do not hide strings. */
export function arcOf(arrow: Arrow, marks: Mark[], g: Geometry, room: (fret: number) => number) {
  const from = { x: g.x(arrow.from.fret), y: g.y(arrow.from.string) }
  const to = { x: g.x(arrow.to.fret), y: g.y(arrow.to.string) }
  const along = { x: to.x - from.x, y: to.y - from.y }
  const length = Math.hypot(along.x, along.y) || 1
  // Between neighbours on one fret there is no room: the arrow goes round their ends.
  if (Math.abs(along.x) < 1 && length < 1.5 * g.spacing) {
    const side = from.x + (along.y < 0 ? 30 : -30)
    const out = along.y < 0 ? 20 : -20
    return {
      path: `M${side} ${from.y} q${out} ${along.y / 2} 0 ${along.y}`,
      label: { x: side + 1.1 * out, y: (from.y + to.y) / 2 + 4 },
    }
  }
  const unit = { x: along.x / length, y: along.y / length }
  // Leave and reach the pebbles at their edge: they are wider than high.
  const edge = (place: Place) => {
    const mark = marks.find((m) => placeKey(m) === placeKey(place))
    const width = mark ? markSize(mark, room(mark.fret)).w : 46
    return 4 + 1 / Math.hypot(unit.x / (width / 2 + 3), unit.y / 15)
  }
  const a = { x: from.x + unit.x * edge(arrow.from), y: from.y + unit.y * edge(arrow.from) }
  const b = { x: to.x - unit.x * edge(arrow.to), y: to.y - unit.y * edge(arrow.to) }
  const bow = Math.abs(unit.x) > 0.5 ? -11 : 8
  const middle = { x: (a.x + b.x) / 2 + (Math.abs(unit.x) > 0.5 ? 0 : bow), y: (a.y + b.y) / 2 + bow }
  return {
    path: `M${a.x} ${a.y} Q${middle.x} ${middle.y} ${b.x} ${b.y}`,
    label: { x: middle.x, y: middle.y - 1 },
  }
}
