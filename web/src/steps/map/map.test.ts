import { describe, expect, test } from 'vitest'
import type { Chart, ChordView, NeckMap, PlacedTone, LayoutChoice } from '../../api/client'
import { shapePerformance } from './hearing'
import { chosenLayout, layoutText, moveBound, readLayout } from './layouts'
import { chordMarks, labelText, legendOf, type Looks } from './looks'

const tone = (string: number, fret: number, degree: string, more: Partial<PlacedTone> = {}) =>
  ({
    ...{ string, fret, degree, note: `n${degree}`, inKey: `k${degree}`, finger: 2 },
    ...{ class: 'chordTone', spoken: `${degree} there`, alternatives: [] },
    ...more,
  }) as unknown as PlacedTone
const view = {
  shape: {
    tones: [tone(6, 8, 'R'), tone(5, 7, '3', { alternatives: [{ string: 6, fret: 12 }] } as never)],
    box: [tone(6, 8, 'R'), tone(6, 11, 'b3', { class: 'blue' })],
    beyond: [tone(4, 4, '5')],
  },
  superimposed: [{ chord: 'Em7b5', degrees: ['3', '5'], leans: 'b7', notes: [tone(5, 7, '3')] }],
  blend: { name: 'the blend', rule: 'both boxes', notes: [tone(4, 8, 'b7', { of: 'minor' } as never)] },
  chordScale: { name: 'C Mixolydian', rule: 'joins them', notes: [tone(5, 7, '3'), tone(4, 7, '6')] },
  next: { name: '', rule: '', notes: [] },
  smaller: [],
} as unknown as ChordView
const chord = { chord: 'C7', box: { missing: [{ degree: '3', needed: true }] } } as NeckMap['chords'][number]
const looks = (more: Partial<Looks> = {}): Looks => ({
  ...{ label: 'interval', full: false, over: 'none', rootsOnly: false, lost: false, hidden: new Set() },
  ...{ picked: undefined, small: undefined, easier: false },
  ...more,
})
const marks = (more: Partial<Looks> = {}) => chordMarks(view, view.shape.tones, chord, looks(more))
const brief = (more: Partial<Looks> = {}) =>
  marks(more).map((m) => `${m.form} ${m.string}:${m.fret} ${m.text}`)

describe('a chord on the neck', () => {
  test('is its tones, with those a reach back would give as ghosts', () => {
    expect(brief()).toEqual(['tone 6:8 R', 'tone 5:7 3', 'ghost 4:4 5'])
  })
  test('with the box says what the box lacks', () => {
    expect(brief({ over: 'box' })).toContain('box 6:11 b3')
    expect(marks({ over: 'box' }).find((m) => m.text === '3')?.caption).toBe('not in box')
  })
  test('with only its roots', () => {
    expect(brief({ rootsOnly: true })).toEqual(['tone 6:8 R'])
  })
  test('without the degrees that are hidden', () => {
    expect(brief({ hidden: new Set(['R', '5']) })).toEqual(['tone 5:7 3'])
  })
  test('lost: the chord tones in the box are large, the rest dots', () => {
    expect(brief({ lost: true })).toEqual(['tone 6:8 R', 'box 6:11 b3'])
  })
  test('a scale leaves out what the shape already has', () => {
    expect(brief({ over: 'scale' }).filter((m) => m.startsWith('box'))).toEqual(['box 4:7 6'])
  })
  test('the dots of the blend say which box has the note', () => {
    expect(marks({ over: 'blend' }).find((m) => m.form === 'box')?.class).toBe('blue')
  })
  test('an arpeggio over it shares what both have', () => {
    expect(marks({ over: 'Em7b5' }).map((m) => m.form)).toEqual(['leaving', 'held'])
  })
  test('a picked tone shows where else it can be played', () => {
    expect(brief({ picked: { string: 5, fret: 7 } })).toContain('ghost 6:12 3')
  })
  test('on the whole neck no fingers stand beside the tones', () => {
    expect(marks({ full: true }).map((m) => m.small)).toEqual([undefined, undefined])
  })
  test.each([
    ['interval', 'R'],
    ['note', 'nR'],
    ['degree of the key', 'kR'],
    ['finger', '2'],
  ] as const)('labelled by %s', (label, text) => {
    expect(labelText(view.shape.tones[0]!, label)).toBe(text)
  })
  test.each([
    ['Em7b5', 'Em7b5 over C7 gives 3 5. The b7 leans: move it on.'],
    ['scale', 'C Mixolydian: joins them.'],
    ['next', 'This tune stays on one chord: none comes next.'],
    ['none', 'Pick a note to read why.'],
  ])('the legend over %s', (over, text) => {
    expect(legendOf(view, 'C7', looks({ over }))).toBe(text)
  })
})

describe('a layout in the address', () => {
  test.each([
    ['', {}],
    ['one octave:b7', { kind: 'one octave', from: 'b7' }],
    ['two a string', { kind: 'two a string' }],
    ['some strings:2-4', { kind: 'some strings', low: 2, high: 4 }],
    ['some frets:0-3', { kind: 'some frets', low: 0, high: 3 }],
  ])('%s', (text, layout) => {
    expect(readLayout(text)).toEqual(layout)
    expect(layoutText(layout)).toBe(text || undefined)
  })
  test('all tones are no value of the address', () => {
    expect(layoutText({ kind: 'all tones' })).toBeUndefined()
  })
  test('which of the choices it is', () => {
    const choices = ['all tones', 'one octave', 'some frets'].map((kind) => ({ kind, text: kind }))
    const octave = { ...choices[1], from: '3' } as LayoutChoice
    const all = [choices[0], octave, choices[2]] as LayoutChoice[]
    expect(chosenLayout(all, { kind: 'one octave', from: '3' })).toBe(octave)
    expect(chosenLayout(all, { kind: 'some frets', low: 5, high: 7 })).toBe(choices[2])
    expect(chosenLayout(all, {})).toBe(choices[0])
    expect(chosenLayout(all, { kind: 'one octave', from: '9' })).toBe(choices[0])
  })
  test('bounds that would cross move together', () => {
    const layout = { kind: 'some strings', low: 2, high: 4 }
    expect(moveBound(layout, 'low', 5)).toEqual({ ...layout, low: 5, high: 5 })
    expect(moveBound(layout, 'high', 1)).toEqual({ ...layout, low: 1, high: 1 })
    expect(moveBound(layout, 'low', 3)).toEqual({ ...layout, low: 3, high: 4 })
  })
})

test('a shape is heard without the band, from the bar under work on', () => {
  const heard = shapePerformance(view.shape.tones, true, { chart: { meter: '4/4' } as Chart, bar: 3 })
  expect(heard).toMatchObject({ from: 3, shape: { strummed: true } })
  expect(heard.shape?.places).toEqual(view.shape.tones.map(({ string, fret }) => ({ string, fret })))
})
