import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, test, vi } from 'vitest'
import { computed, ref, shallowRef } from 'vue'
import type { Lick, LickEdit, LickEvent, LineEvent, WrittenLick } from '../api/client'
import { useTune } from '../document/tune'
import { useCursor } from './cursor'
import { gridAt } from './grid'
import { classUnder, degreeUnder, fretText, layOutTab, techniqueSign } from './tab'
import { labelOf, type LickChange, type Writing } from './writing'

beforeEach(() => {
  setActivePinia(createPinia())
  useTune().choices = {
    lengths: [
      { name: 'quarter', plain: 480, dotted: 720, triplet: 320 },
      { name: 'eighth', plain: 240, dotted: 360, triplet: 160 },
      { name: 'sixteenth', plain: 120, dotted: 180, triplet: 80 },
    ],
    frets: { least: 12, most: 24 },
    mostBend: 6,
  } as never
})

const note = (tick: number, string: number, fret: number, more: Partial<LickEvent> = {}): LickEvent => ({
  ...{ tick, ticks: 240, string, fret },
  ...more,
})

function editor(events: LickEvent[] = []) {
  const lick = shallowRef({ events } as unknown as Lick)
  const edits: LickEdit[] = []
  const edit = vi.fn<Writing['edit']>(async (change: LickChange) => {
    edits.push((typeof change === 'function' ? change() : change) as LickEdit)
  })
  const written = ref({ neck: { strings: ['E', 'B', 'G', 'D', 'A', 'E'] } } as WrittenLick)
  const writing: Writing = {
    ...{ written, lick: computed(() => lick.value), problem: ref(''), notice: ref(''), edit },
  }
  return { cursor: useCursor(writing), edits, edit, lick }
}

describe('the cursor', () => {
  test('moves by the length that is chosen', () => {
    const { cursor } = editor()
    cursor.move(1)
    expect(cursor.tick.value).toBe(240)
    cursor.setLength('quarter', 'plain')
    cursor.move(1)
    expect(cursor.tick.value).toBe(720)
    cursor.move(-1)
    expect(cursor.tick.value).toBe(240)
  })

  test('stops where a note begins or ends before', () => {
    const { cursor } = editor([note(100, 3, 8, { ticks: 60 })])
    cursor.move(1)
    expect(cursor.tick.value).toBe(100)
    cursor.move(1)
    expect(cursor.tick.value).toBe(160)
  })

  test('goes before bar 1', () => {
    const { cursor } = editor()
    cursor.move(-1)
    expect(cursor.tick.value).toBe(-240)
  })

  test.each([
    [0, 1],
    [3, 3],
    [9, 6],
  ])('goes to string %i, which is %i', (to, want) => {
    const { cursor } = editor()
    cursor.goToString(to)
    expect(cursor.string.value).toBe(want)
  })

  test('knows the note it is on', () => {
    const { cursor } = editor([note(0, 3, 8)])
    cursor.goToString(3)
    expect(cursor.here.value?.fret).toBe(8)
    cursor.goToString(2)
    expect(cursor.here.value).toBeUndefined()
  })
})

describe('a selection', () => {
  test('grows from where it began', () => {
    const { cursor } = editor()
    cursor.move(1, true)
    cursor.move(1, true)
    expect([cursor.selected.value, cursor.range.value]).toEqual([true, { from: 0, to: 480, string: 0 }])
  })

  test('goes backwards as well', () => {
    const { cursor } = editor()
    cursor.go(480)
    cursor.move(-1, true)
    expect(cursor.range.value).toEqual({ from: 240, to: 480, string: 0 })
  })

  test('is over when the cursor moves on', () => {
    const { cursor } = editor()
    cursor.move(1, true)
    cursor.move(1)
    expect(cursor.selected.value).toBe(false)
  })

  test('of all begins with the first note', () => {
    const { cursor } = editor([note(-240, 3, 8), note(0, 3, 10)])
    cursor.all()
    expect(cursor.range.value).toEqual({ from: -240, to: 240, string: 0 })
  })
})

describe('writing', () => {
  test('a figure is a fret', () => {
    const { cursor, edits } = editor()
    cursor.figure(7, 0)
    expect(edits).toEqual([{ kind: 'put', from: 0, string: 1, fret: 7, ticks: 240 }])
  })

  test('two figures in quick succession are one fret, and one step of undo', () => {
    const { cursor, edits, edit } = editor()
    cursor.figure(1, 0)
    cursor.figure(2, 300)
    expect(edits.map((e) => e.fret)).toEqual([1, 12])
    expect(edit.mock.calls[0]![1]).toBe(edit.mock.calls[1]![1])
  })

  test('slowly they are two frets', () => {
    const { cursor, edits, edit } = editor()
    cursor.figure(1, 0)
    cursor.figure(2, 2000)
    expect(edits.map((e) => e.fret)).toEqual([1, 2])
    expect(edit.mock.calls[0]![1]).not.toBe(edit.mock.calls[1]![1])
  })

  test('a fret that no neck has is two', () => {
    const { cursor, edits } = editor()
    cursor.figure(9, 0)
    cursor.figure(9, 100)
    expect(edits.map((e) => e.fret)).toEqual([9, 9])
  })

  test('elsewhere a figure begins anew', () => {
    const { cursor, edits } = editor()
    cursor.figure(1, 0)
    cursor.move(1)
    cursor.figure(2, 100)
    expect(edits.map((e) => e.fret)).toEqual([1, 2])
  })

  test('a technique that all have is taken away', () => {
    const { cursor, edits } = editor([note(0, 1, 8, { vibrato: true })])
    cursor.play('vibrato')
    expect(edits[0]).toMatchObject({ kind: 'setTechnique', technique: 'vibrato', value: 0 })
  })

  test('one that some lack is given to all', () => {
    const { cursor, edits } = editor([note(0, 1, 8, { vibrato: true }), note(240, 1, 9)])
    cursor.all()
    cursor.play('vibrato')
    expect(edits[0]).toMatchObject({ value: 1 })
  })

  test.each([
    [0, 2],
    [1, 4],
    [2, 6],
    [3, 0],
    [0.5, 2],
  ])('a bend of %s half steps goes on to %s quarter tones', (now, want) => {
    const { cursor, edits } = editor([note(0, 1, 8, { bend: now })])
    cursor.bend()
    expect(edits[0]).toMatchObject({ technique: 'bend', value: want })
  })

  test('what is copied is pasted at the cursor, and the cursor goes behind it', async () => {
    const { cursor, edits } = editor([note(0, 1, 8), note(240, 1, 10)])
    cursor.all()
    cursor.copy()
    cursor.go(960)
    await cursor.paste()
    expect(edits[0]).toMatchObject({ kind: 'paste', from: 960 })
    expect(cursor.tick.value).toBe(1440)
  })

  test('a rest takes notes away and moves on', () => {
    const { cursor, edits } = editor([note(0, 1, 8)])
    cursor.rest()
    expect(edits[0]).toMatchObject({ kind: 'clear', from: 0, to: 1 })
    expect(cursor.tick.value).toBe(240)
  })
})

describe('what undo would take back', () => {
  test.each([
    [{ kind: 'put' }, 'write a note'],
    [{ kind: 'paste' }, 'paste'],
    [{ name: 'x' }, 'rename the lick'],
    [{ tonic: 'A' }, 'the key of the lick'],
    [{}, 'edit the lick'],
  ])('%o is called “%s”', (change, want) => expect(labelOf(change as LickEdit)).toBe(want))
})

describe('tab', () => {
  const line = (events: Partial<LineEvent>[]) => ({
    events: events.map((e) => ({ ticks: 240, string: 1, fret: 5, ...e }) as LineEvent),
    barLines: [0, 1, 2].map((n) => ({ tick: n * 1920, ticks: 1920, beatTicks: 480 })),
  })

  test('notes stand in the order of their time, and far enough apart to read', () => {
    const { x } = layOutTab(line([{ tick: 0 }, { tick: 60 }, { tick: 120 }, { tick: 1680 }]), 800)
    expect(x).toEqual([...x].sort((a, b) => a - b))
    expect(x[1]! - x[0]!).toBeGreaterThanOrEqual(30)
  })

  test('what is struck together stands together, its degrees under the first', () => {
    const events = [
      { tick: 0, degree: 'R', class: 'chordTone' },
      { tick: 0, degree: '3', class: 'chordTone' },
      { tick: 480, degree: '5', class: 'chordTone' },
    ] as LineEvent[]
    const { x } = layOutTab(line(events), 800)
    expect(x[0]).toBe(x[1])
    expect(x[2]! - x[1]!).toBeGreaterThan(30)
    expect([0, 1, 2].map((n) => degreeUnder(events, n))).toEqual(['R 3', '', '5'])
    expect([0, 1].map((n) => classUnder(events, n))).toEqual(['', ''])
    expect(classUnder(events, 2)).not.toBe('')
  })

  test('longer notes have more room', () => {
    const { x } = layOutTab(line([{ tick: 0 }, { tick: 960 }, { tick: 1200 }]), 800)
    expect(x[1]! - x[0]!).toBeGreaterThan(x[2]! - x[1]!)
  })

  test('nothing stands beyond the edge', () => {
    const many = Array.from({ length: 40 }, (_, n) => ({ tick: n * 48, ticks: 48 }))
    expect(Math.max(...layOutTab(line(many), 600).x)).toBeLessThan(600)
  })

  test('beats are counted from the bar', () => {
    const barLines = [-960, 960].map((tick) => ({ tick, ticks: 1920, beatTicks: 480 }))
    const { beats } = layOutTab({ ...line([{ tick: 0, ticks: 1920 }]), barLines }, 800)
    expect(beats.map((b) => b.text)).toEqual(['3', '4', '1', '2'])
  })

  test('without notes there is nothing', () => expect(layOutTab(line([]), 800)).toEqual({ x: [], beats: [] }))

  test.each([
    [{ bend: 2, bendMark: 'full' }, '↑full'],
    [{ bend: 1.5, bendMark: '¾', release: true }, '↑¾ ↓'],
    [{ slideFrom: 3 }, '/'],
    [{ slideFrom: 9 }, '\\'],
    [{ hammerOn: true, vibrato: true }, 'h ∿'],
    [{ slideOut: 'down' }, '↘'],
    [{}, ''],
    [{ trill: 2 }, 'tr7'],
    [{ rake: true }, '⫽'],
  ])('%o is written %s', (how, want) => expect(techniqueSign({ fret: 5, ...how } as LineEvent)).toBe(want))

  test('a dead note is a cross, a ghost note stands in brackets', () => {
    expect([
      fretText({ fret: 5 }),
      fretText({ fret: 5, mute: true }),
      fretText({ fret: 5, ghost: true }),
    ]).toEqual(['5', '×', '(5)'])
  })

  test('a lick is shown two bars at a time, its pickup before bar 1', () => {
    const written = { tab: { barTicks: 1920, start: 1920 } } as WrittenLick
    const grid = gridAt(written, -480, 800)
    expect([grid.from, grid.to, grid.bars.map((b) => b.number)]).toEqual([-1920, 1920, [0, 1]])
    expect(gridAt(written, 2000, 800).bars.map((b) => b.number)).toEqual([2, 3])
    expect(grid.x(0)).toBeGreaterThan(grid.x(-1))
  })

  test('where two bars would be too narrow, one at a time', () => {
    const written = { tab: { barTicks: 1920, start: 0 } } as WrittenLick
    const grid = gridAt(written, 2000, 340)
    expect([grid.from, grid.to, grid.bars.map((b) => b.number)]).toEqual([1920, 3840, [2]])
  })
})
