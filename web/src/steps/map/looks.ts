import type { ChordView, NeckMap, Overlay, Place, PlacedTone } from '../../api/client'
import { samePlace } from '../../neck/geometry'
import { boxMarks, changeMarks, markedInBox, placeKey, toneMark, type Mark } from '../../neck/marks'
import type { labels } from './address'

export type Label = (typeof labels)[number]
type Smaller = ChordView['smaller'][number]
type Arpeggio = ChordView['superimposed'][number]

/** What is to be seen of a chord on the neck. */
export interface Looks {
  label: Label
  /** The whole neck, instead of one position. */
  full: boolean
  /** What is laid over the chord: an overlay, or the chord of an arpeggio. */
  over: string
  rootsOnly: boolean
  /** Only the chord tones of the box. */
  lost: boolean
  hidden: Set<string>
  picked: Place | undefined
  small: Smaller | undefined
  easier: boolean
}

/** The overlay that is chosen, where it is one of those with notes of its own. */
export function overlayOf(view: ChordView | undefined, over: string): Overlay | undefined {
  if (!view) return undefined
  return { scale: view.chordScale, extensions: view.extensions, blend: view.blend, next: view.next }[over]
}
export const arpeggioOf = (view: ChordView | undefined, over: string): Arpeggio | undefined =>
  view?.superimposed.find((s) => s.chord === over)

/** A tone as the label asks. */
export function labelText(tone: PlacedTone, label: Label) {
  if (label === 'note') return tone.note
  if (label === 'degree of the key') return tone.inKey
  if (label === 'finger') return tone.finger ? String(tone.finger) : '0'
  return tone.degree
}

/** The finger stands small beside a tone, but where it is the label or the hand moves about. */
function marked(tone: PlacedTone, form: Mark['form'], looks: Looks): Mark {
  const mark = toneMark(tone, form)
  const small = looks.label === 'finger' || looks.full ? undefined : mark.small
  return { ...mark, text: labelText(tone, looks.label), small }
}
function ghost(tone: PlacedTone, spoken: string, looks: Looks): Mark {
  return {
    ...toneMark(tone, 'ghost'),
    ...{ text: labelText(tone, looks.label), root: false, small: undefined, spoken },
  }
}

/** Some tones as pebbles, and the rest of the shape as ghosts. */
function among(chosen: Mark[], all: PlacedTone[], looks: Looks, says = '') {
  const taken = new Set(chosen.map(placeKey))
  const rest = all.filter((tone) => !taken.has(placeKey(tone)))
  return [...chosen, ...rest.map((tone) => ghost(tone, says + tone.spoken, looks))]
}

/**
 * The marks of a chord: the tones of its shape, or on the whole neck those of every
 * position, with what is laid over them.
 */
export function chordMarks(
  view: ChordView,
  tones: PlacedTone[],
  chord: NeckMap['chords'][number] | undefined,
  looks: Looks,
): Mark[] {
  const { shape } = view
  const wanted = (tone: PlacedTone) =>
    looks.rootsOnly ? tone.degree === 'R' : !looks.hidden.has(tone.degree)
  if (looks.lost) {
    const chordTones = shape.box
      .filter((note) => note.class === 'chordTone')
      .map((note) => marked(note, 'tone', looks))
    return [...chordTones, ...boxMarks(shape.box, chordTones)]
  }
  if (looks.easier && view.easier && !looks.full) {
    const within = view.easier.tones.filter(wanted).map((tone) => marked(tone, 'tone', looks))
    return among(within, shape.tones, looks, 'left out: ')
  }
  if (looks.small && !looks.full) {
    const chosen = looks.small.notes.map((tone) => marked(tone, 'tone', looks))
    return among(chosen, shape.tones, looks)
  }
  const arpeggio = arpeggioOf(view, looks.over)
  if (arpeggio && !looks.full) return changeMarks(tones.filter(wanted), arpeggio.notes)
  const toAdd = new Set(chord?.box.missing.filter((l) => l.needed).map((l) => l.degree))
  const isPicked = (tone: PlacedTone) => looks.picked && samePlace(tone, looks.picked)
  const pebbles = tones.filter(wanted).map((tone) => ({
    ...marked(tone, 'tone', looks),
    chosen: isPicked(tone),
    caption: looks.over === 'box' && toAdd.has(tone.degree) && !looks.full ? 'not in box' : undefined,
  }))
  if (looks.full) return pebbles
  const chosen = shape.tones.find(isPicked)
  // What only a reach below the core would give is there, but not in the shape.
  const beyond = shape.beyond.filter(wanted).map((tone) => ghost(tone, `reach back: ${tone.spoken}`, looks))
  const alternatives = (chosen?.alternatives ?? []).map((place) => ({
    ...ghost(chosen!, `move the ${chosen!.note} to string ${place.string}, fret ${place.fret}`, looks),
    ...place,
  }))
  const under = [...pebbles, ...beyond, ...alternatives]
  if (looks.over === 'box') return [...markedInBox(under, shape.box), ...boxMarks(shape.box, under)]
  return [...under, ...overlayMarks(overlayOf(view, looks.over), under, looks)]
}

/** The notes of an overlay, but for the places that are taken. */
function overlayMarks(overlay: Overlay | undefined, under: Mark[], looks: Looks): Mark[] {
  const taken = new Set(under.map(placeKey))
  const notes = (overlay?.notes ?? []).filter(
    (note) => !taken.has(placeKey(note)) && !looks.hidden.has(note.degree),
  )
  if (looks.over === 'next') return notes.map((note) => ghost(note, note.spoken, looks))
  return notes.map((note) => ({
    ...toneMark(note, 'box'),
    text: labelText(note, looks.label),
    // In the blend the dot says which box has the note, not what it is.
    class: note.of ? { both: 'suspension', minor: 'blue', major: 'colour' }[note.of] : note.class,
  }))
}

/** What the marks mean, in one sentence. */
export function legendOf(view: ChordView | undefined, chord: string, looks: Looks): string {
  if (looks.easier && view?.easier) return view.easier.text
  if (looks.small) {
    const { name, strings, notes } = looks.small
    return `${name} on ${strings}: ${notes.map((tone) => tone.degree).join(' ')}. Strummed when chosen; p plays it note by note.`
  }
  const arpeggio = arpeggioOf(view, looks.over)
  if (arpeggio) {
    const lean = arpeggio.leans ? ` The ${arpeggio.leans} leans: move it on.` : ''
    return `${arpeggio.chord} over ${chord} gives ${arpeggio.degrees.join(' ')}.${lean}`
  }
  const overlay = overlayOf(view, looks.over)
  if (looks.over === 'next' && !overlay?.name) return 'This tune stays on one chord: none comes next.'
  if (looks.over === 'next')
    return `Ghosts are ${overlay?.name}, the chord that comes next, as its own degrees.`
  if (overlay) return `${overlay.name}: ${overlay.rule}.`
  if (looks.over === 'box')
    return 'Dots are your box, on the edge of a tone too: ◐ blue · dashed colour · ● sus. Pick a note to read why.'
  return 'Pick a note to read why.'
}
