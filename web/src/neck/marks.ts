import type { LineEvent, PlacedTone, Place } from '../api/client'

/**
 * One note as it is drawn on the neck. What it is, is said by form and text:
 * tones are pebbles, the box is dots, ghosts are other places for a tone.
 */
export interface Mark extends Place {
  form: 'tone' | 'leaving' | 'arriving' | 'held' | 'box' | 'ghost' | 'empty'
  /** The degree in large, and a second one where two chords share the place. */
  text: string
  second?: string
  root: boolean
  /** The class of a note, which shapes the dots of the box. */
  class: string
  small?: string
  spoken: string
  caption?: string
  lit?: boolean
  chosen?: boolean
  /** A tone that the box has too: a dot on its edge says so. */
  inBox?: boolean
}

export interface Arrow {
  from: Place
  to: Place
  text: string
  spoken: string
  strong: boolean
  /** Of less weight than the notes: drawn paler. */
  faint?: boolean
}

export const placeKey = (p: Place) => `${p.string}:${p.fret}`

export function toneMark(tone: PlacedTone, form: Mark['form']): Mark {
  return {
    string: tone.string,
    fret: tone.fret,
    form,
    text: tone.degree,
    root: tone.degree === 'R',
    class: tone.class,
    small: tone.finger ? String(tone.finger) : undefined,
    spoken: tone.spoken,
  }
}

/** Pebbles, those that the box has too marked so. */
export function markedInBox(pebbles: Mark[], box: PlacedTone[]): Mark[] {
  const boxed = new Set(box.map(placeKey))
  return pebbles.map((mark) =>
    mark.form !== 'ghost' && boxed.has(placeKey(mark))
      ? { ...mark, inBox: true, spoken: `${mark.spoken}, also in your box` }
      : mark,
  )
}

/** The box as dots, but for the places that a pebble already takes. */
export function boxMarks(box: PlacedTone[], taken: Mark[]): Mark[] {
  const pebbles = new Set(taken.map(placeKey))
  return box.filter((note) => !pebbles.has(placeKey(note))).map((note) => toneMark(note, 'box'))
}

/** Two chords on one neck: leaving hollow, arriving filled, shared places split. */
export function changeMarks(from: PlacedTone[], to: PlacedTone[]): Mark[] {
  const arriving = new Map(to.map((tone) => [placeKey(tone), tone]))
  const marks: Mark[] = []
  for (const tone of from) {
    const held = arriving.get(placeKey(tone))
    if (!held) {
      marks.push({ ...toneMark(tone, 'leaving'), small: undefined })
      continue
    }
    arriving.delete(placeKey(tone))
    marks.push({
      ...toneMark(tone, 'held'),
      root: tone.degree === 'R' || held.degree === 'R',
      second: held.degree,
      small: undefined,
      spoken: `${tone.spoken}; and ${held.spoken}`,
    })
  }
  for (const tone of arriving.values()) marks.push({ ...toneMark(tone, 'arriving'), small: undefined })
  return marks
}

/** Every other place of a stretch of frets, to be picked though nothing is there. */
export function emptyMarks(strings: number, span: { low: number; high: number }, taken: Mark[]): Mark[] {
  const full = new Set(taken.map(placeKey))
  const marks: Mark[] = []
  for (let string = 1; string <= strings; string++) {
    for (let fret = span.low; fret <= span.high; fret++) {
      if (full.has(placeKey({ string, fret }))) continue
      const where = fret === 0 ? 'open' : `fret ${fret}`
      const spoken = `string ${string}, ${where}`
      marks.push({ string, fret, form: 'empty', text: '', root: false, class: '', spoken })
    }
  }
  return marks
}

/** A line on the neck: each place it uses once, its target filled. */
export function lineMarks(events: LineEvent[], sounding: number | undefined): Mark[] {
  const marks = new Map<string, Mark>()
  events.forEach((event, index) => {
    const key = placeKey(event)
    const before = marks.get(key)
    const target = event.role === 'target'
    const lit = index === sounding || before?.lit === true
    marks.set(key, {
      string: event.string,
      fret: event.fret,
      form: target ? 'arriving' : (before?.form ?? 'tone'),
      text: target || !before || lit ? event.degree : before.text,
      root: event.degree === 'R' && event.role !== 'target',
      class: event.class,
      small: `${event.finger || ''}${event.bend ? '↑' : ''}` || undefined,
      spoken: before ? `${before.spoken}; then ${event.spoken}` : event.spoken,
      lit,
    })
  })
  return [...marks.values()]
}
