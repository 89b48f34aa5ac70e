import type { BarLine, LineEvent, Tab } from '../api/client'
import { classShort } from '../controls/classes'
import { beatsOf } from './barlines'

/** What is written as tab: notes with what they are, and the time they stand in. */
export interface TabLine {
  events: LineEvent[]
  /** The bars it touches, in its own ticks. */
  barLines: Pick<BarLine, 'tick' | 'ticks' | 'beatTicks'>[]
}

/** Where a line's notes stand on a tab of the given width, and its beat marks. */
export interface TabLayout {
  x: number[]
  beats: { x: number; text: string; bar: boolean }[]
}

const side = { left: 46, right: 30 }
/** A note's label needs this much room, however short the note. */
const room = 40

/** How many notes, struck one after the other, a line of the given width has room for. */
export const mostOnsets = (width: number) => Math.max(1, Math.floor((width - side.left - side.right) / room))

/**
 * Spaces notes by their time, but never so close that their labels would touch;
 * where there is room to spare it goes to the longer notes.
 */
export function layOutTab(line: TabLine, width: number): TabLayout {
  const { events } = line
  const last = events[events.length - 1]
  if (!last) return { x: [], beats: [] }
  const end = last.tick + last.ticks
  const start = Math.min(events[0]?.tick ?? 0, 0)
  // What is struck together stands together.
  const ticks = [...new Set(events.map((e) => e.tick))]
  const starts = [start, ...ticks, end]
  const free = width - side.left - side.right
  const needed: number[] = starts.slice(1).map((_, index) => (index === 0 ? 0 : room))
  const spare = Math.max(free - needed.reduce((a, b) => a + b, 0), 0)
  const gaps = needed.map((need, index) => {
    const between = (starts[index + 1] ?? 0) - (starts[index] ?? 0)
    return need + (spare * between) / (end - start)
  })
  const at: number[] = [side.left]
  gaps.forEach((gap, index) => at.push((at[index] ?? 0) + gap))
  const shrink = Math.min(1, free / ((at.at(-1) ?? 0) - side.left))
  const xs = at.map((x) => side.left + (x - side.left) * shrink)

  const between = (tick: number) => {
    const index = Math.max(
      starts.findLastIndex((s) => s <= tick),
      0,
    )
    const from = starts[index] ?? 0
    const to = starts[index + 1] ?? end
    const a = xs[index] ?? side.left
    const b = xs[index + 1] ?? a
    return to > from ? a + ((b - a) * (tick - from)) / (to - from) : a
  }
  const beats = beatsOf(line.barLines)
    .filter(({ tick }) => tick >= 0 && tick < end)
    .map(({ tick, beat }) => ({ x: between(tick), text: String(beat), bar: beat === 1 }))
  return { x: events.map((e) => xs[ticks.indexOf(e.tick) + 1] ?? side.left), beats }
}

/**
 * The degree under a note: of several that are struck together, those of all of them, under the
 * first.
 */
export function degreeUnder(events: { tick: number; degree: string }[], index: number): string {
  const tick = events[index]?.tick
  if (index > 0 && events[index - 1]?.tick === tick) return ''
  return events
    .slice(index)
    .filter((e) => e.tick === tick)
    .map((e) => e.degree)
    .join(' ')
}

/** What a note is over its chord, under it; nothing under several that are struck together. */
export function classUnder(events: { tick: number; class: LineEvent['class'] }[], index: number) {
  const one = events[index]
  const alone = one && events.filter((e) => e.tick === one.tick).length === 1
  return alone ? classShort(one.class) : ''
}

/** The fret of a note as tab writes it: a cross where it is dead, in brackets where it is a ghost note. */
export const fretText = (e: { fret: number; mute?: boolean; ghost?: boolean }) => {
  const fret = e.mute ? '×' : String(e.fret)
  return e.ghost ? `(${fret})` : fret
}

/** How the techniques of a note are written over it. */
export function techniqueSign(e: LineEvent): string {
  const signs = []
  if (e.slideFrom) signs.push(e.slideFrom < e.fret ? '/' : '\\')
  if (e.hammerOn) signs.push('h')
  if (e.pullOff) signs.push('p')
  if (e.bendMark) signs.push(`↑${e.bendMark}`)
  if (e.release) signs.push('↓')
  if (e.vibrato) signs.push('∿')
  if (e.slideOut) signs.push(e.slideOut === 'up' ? '↗' : '↘')
  if (e.grace) signs.push('♪')
  if (e.trill) signs.push(`tr${e.fret + e.trill}`)
  if (e.rake) signs.push('⫽')
  if (e.accent) signs.push('>')
  return signs.join(' ')
}

/** The note itself, without what is said of it. */
export function asEvent(event: LineEvent) {
  const { tick, ticks, string, fret, finger, slideFrom, slideOut, hammerOn, pullOff } = event
  const { bend, preBend, release, vibrato, mute, accent, staccato, tied, grace } = event
  const { trill, rake, ghost } = event
  return {
    ...{ tick, ticks, string, fret, finger, slideFrom, slideOut, hammerOn, pullOff },
    ...{ bend, preBend, release, vibrato, mute, accent, staccato, tied, grace, trill, rake, ghost },
  }
}

/** What is written as tab, as the player is asked for it: over the band, counted in. */
export function heard(tab: Tab) {
  return {
    from: tab.firstBar,
    bars: tab.bars,
    countIn: 1,
    line: { meter: tab.meter, start: tab.start, events: tab.events.map(asEvent) },
  }
}
