import academico from '@vexflow-fonts/academico/academico.woff2?url'
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import {
  Accidental,
  Beam,
  Dot,
  Formatter,
  GraceNote,
  GraceNoteGroup,
  Renderer,
  Stave,
  StaveNote,
  StaveTie,
  Tuplet,
  VexFlow,
  Voice,
} from 'vexflow/core'
import type { StaffBar, StaffNote } from '../api/client'

/** The engraver's fonts ship with the page; the library would fetch them from elsewhere. */
let fonts: Promise<unknown> | undefined
function loadFonts() {
  fonts ??= Promise.all(
    [
      ['Bravura', bravura],
      ['Academico', academico],
    ].map(async ([name, url]) => document.fonts.add(await new FontFace(name ?? '', `url(${url})`).load())),
  ).then(() => VexFlow.setFonts('Bravura', 'Academico'))
  return fonts
}

const durations: Record<string, string> = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
  '32nd': '32',
  '64th': '64',
}

/** A guitar's staff is written an octave above what sounds. */
const key = (note: StaffNote) => `${note.note[0]?.toLowerCase()}${note.note.slice(1)}/${note.octave + 1}`
const accidental = (note: StaffNote) => note.note.slice(1)

export interface Engraving {
  bars: StaffBar[]
  meter: string
  width: number
  height: number
  color: string
  /** Where a tick stands, so that the staff lines up with the tab below it. */
  x: (tick: number) => number
  /** The event that is being heard. */
  sounding: number | undefined
  lit: string
}

/** Draws bars of notation into an element, each sign over its place in the tab. */
export async function engrave(into: HTMLDivElement, e: Engraving) {
  await loadFonts()
  into.replaceChildren()
  const renderer = new Renderer(into, Renderer.Backends.SVG)
  renderer.resize(e.width, e.height)
  const context = renderer.getContext()
  context.setFillStyle(e.color)
  context.setStrokeStyle(e.color)
  e.bars.forEach((bar, n) => {
    const next = e.bars[n + 1]
    const from = n === 0 ? 2 : e.x(bar.tick) - 17
    const to = next ? e.x(next.tick) - 17 : e.width - 2
    const stave = new Stave(from, 0, to - from, { spaceAboveStaffLn: 4.8 })
    if (n === 0) stave.addClef('treble', 'default', '8vb')
    stave.setContext(context).draw()
    const voices: Voice[] = []
    const after: { setContext: (c: typeof context) => { draw: () => unknown } }[] = []
    bar.voices.forEach((signs, v) => {
      const notes = signs.map((sign) => {
        const rest = sign.notes.length === 0
        const low = v > 0 ? ['d/4'] : ['b/4']
        const ordered = [...sign.notes].sort((a, b) => a.octave - b.octave)
        const note = new StaveNote({
          keys: rest ? low : ordered.map(key),
          duration: (durations[sign.kind] ?? 'q') + (rest ? 'r' : ''),
          dots: sign.dots,
          autoStem: bar.voices.length === 1,
          stemDirection: bar.voices.length === 1 ? undefined : v === 0 ? 1 : -1,
        })
        for (let d = 0; d < sign.dots; d++) Dot.buildAndAttach([note], { all: true })
        ordered.forEach((one, k) => {
          if (accidental(one)) note.addModifier(new Accidental(accidental(one)), k)
        })
        if (sign.graces.length > 0) {
          const graces = sign.graces.map((g) => {
            const grace = new GraceNote({ keys: [key(g)], duration: '16', slash: true })
            if (accidental(g)) grace.addModifier(new Accidental(accidental(g)))
            return grace
          })
          note.addModifier(new GraceNoteGroup(graces, true).beamNotes())
        }
        if (sign.notes.some((one) => one.event === e.sounding))
          note.setStyle({ fillStyle: e.lit, strokeStyle: e.lit })
        return note
      })
      const voice = new Voice().setMode(Voice.Mode.SOFT).addTickables(notes)
      voices.push(voice)
      after.push(...Beam.generateBeams(notes, { groups: Beam.getDefaultBeamGroups(e.meter) }))
      after.push(...tuplets(signs, notes))
      notes.forEach((note, k) => {
        const other = notes[k + 1]
        if (signs[k]?.tied) after.push(new StaveTie({ firstNote: note, lastNote: other ?? undefined }))
      })
    })
    if (voices.length === 0) return
    new Formatter().joinVoices(voices).format(voices, Math.max(to - from - 60, 60))
    bar.voices.forEach((signs, v) =>
      voices[v]?.getTickables().forEach((note, k) => {
        const sign = signs[k]
        if (sign) note.checkTickContext().setX(e.x(sign.tick) - stave.getNoteStartX() - 8)
      }),
    )
    voices.forEach((voice) => voice.draw(context, stave))
    after.forEach((one) => one.setContext(context).draw())
  })
}

/** Signs that stand under one bracket, as three in the time of two. */
const tuplets = (signs: StaffBar['voices'][number], notes: StaveNote[]): Tuplet[] =>
  signs.flatMap(({ bracket, tuplet, inTimeOf }, n) =>
    bracket
      ? [new Tuplet(notes.slice(n + 1 - bracket, n + 1), { numNotes: tuplet, notesOccupied: inTimeOf })]
      : [],
  )
