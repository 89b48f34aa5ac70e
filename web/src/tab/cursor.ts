import { computed, ref, watch } from 'vue'
import type { LickEvent } from '../api/client'
import { useTune } from '../document/tune'
import type { Writing } from './writing'

/** How a note value is taken: as it is, with a dot, or as one of three in the time of two. */
export type Grade = 'plain' | 'dotted' | 'triplet'

/** What is copied, its tick 0 where the selection began; it outlives the lick it is from. */
const clipboard = ref<{ events: LickEvent[]; ticks: number }>()

/** Figures typed within this many milliseconds belong to one fret. */
const together = 900

/**
 * Where a player writes: a place in time and a string, how long the next note is to be,
 * and what is selected. Every key that writes ends here.
 */
export function useCursor(writing: Writing) {
  const tune = useTune()
  const tick = ref(0)
  const string = ref(1)
  const base = ref('eighth')
  const grade = ref<Grade>('plain')
  /** The other end of the selection; the cursor is one end. */
  const anchor = ref<number>()

  const lengths = computed(() => tune.choices?.lengths ?? [])
  const value = computed(() => lengths.value.find((l) => l.name === base.value))
  const ticks = computed(() => value.value?.[grade.value] ?? 0)
  const events = computed(() => writing.lick.value?.events ?? [])
  const strings = computed(() => writing.written.value?.neck.strings.length ?? 6)
  const here = computed(() => events.value.find((e) => e.tick === tick.value && e.string === string.value))

  watch(
    () => writing.written.value?.neck.strings.length,
    () => (string.value = Math.min(string.value, strings.value)),
  )

  /** From where to where what is done applies: the selection, or the note under the cursor. */
  const range = computed(() => {
    if (anchor.value === undefined) return { from: tick.value, to: tick.value + 1, string: string.value }
    const from = Math.min(anchor.value, tick.value)
    const to = Math.max(anchor.value, tick.value)
    return { from, to: Math.max(to, from + 1), string: 0 }
  })
  const selected = computed(() => anchor.value !== undefined && anchor.value !== tick.value)

  /** The next place to the right or left: a step on, or where something begins or ends before. */
  function next(by: 1 | -1): number {
    const step = tick.value + by * ticks.value
    const marks = events.value.flatMap((e) => [e.tick, e.tick + e.ticks])
    return by > 0
      ? Math.min(step, ...marks.filter((m) => m > tick.value))
      : Math.max(step, ...marks.filter((m) => m < tick.value))
  }

  function go(to: number, selecting = false) {
    if (selecting) anchor.value ??= tick.value
    else anchor.value = undefined
    tick.value = to
  }
  const move = (by: 1 | -1, selecting = false) => go(next(by), selecting)
  const goToString = (to: number) => {
    string.value = Math.min(Math.max(to, 1), strings.value)
  }

  function longer(by: 1 | -1) {
    const at = lengths.value.findIndex((l) => l.name === base.value)
    const to = lengths.value[at - by]
    if (to) setLength(to.name, grade.value)
  }
  /** Chooses a length, and gives it to what is selected or under the cursor. */
  function setLength(name: string, as: Grade) {
    base.value = name
    grade.value = as
    if (here.value || selected.value)
      void writing.edit({ kind: 'setLength', ...range.value, ticks: ticks.value })
  }
  const regrade = (as: Grade) => setLength(base.value, grade.value === as ? 'plain' : as)

  /** How many frets were typed, each of one figure or two. */
  let frets = 0
  let typed = { at: 0, tick: NaN, string: 0, fret: 0 }
  /** Types a figure of a fret, at a time in ms: two in quick succession are one fret. */
  function figure(digit: number, now: number) {
    const same = typed.tick === tick.value && typed.string === string.value && now - typed.at < together
    const both = typed.fret * 10 + digit
    const fret = same && typed.fret > 0 && both <= (tune.choices?.frets.most ?? 0) ? both : digit
    typed = { at: now, tick: tick.value, string: string.value, fret }
    if (fret === digit) frets++
    // Two figures of one fret are one edit.
    put(fret, string.value, `fret ${frets}`)
  }
  function put(fret: number, on = string.value, gesture?: string) {
    anchor.value = undefined
    string.value = on
    void writing.edit({ kind: 'put', from: tick.value, string: on, fret, ticks: ticks.value }, gesture)
  }

  function clear() {
    void writing.edit({ kind: 'clear', ...range.value })
  }
  function rest() {
    void writing.edit({ kind: 'clear', from: tick.value, to: tick.value + 1 })
    move(1)
  }
  function back() {
    if (!here.value && !selected.value) move(-1)
    clear()
  }
  const open = () => void writing.edit({ kind: 'insertTime', from: tick.value, ticks: ticks.value })
  function cutTime() {
    const { from } = range.value
    const to = selected.value ? range.value.to : from + ticks.value
    anchor.value = undefined
    tick.value = from
    void writing.edit({ kind: 'removeTime', from, to })
  }

  const onIt = () => events.value.filter(inRange)
  const inRange = (e: LickEvent) =>
    e.tick >= range.value.from &&
    e.tick < range.value.to &&
    (!range.value.string || e.string === range.value.string)
  /** Plays the selection with a technique, or without it where all of it is played so. */
  function play(technique: string, wanted = 1) {
    void writing.edit(() => {
      const all = onIt()
      const has = (e: LickEvent) => techniqueValue(e, technique)
      const off = all.length > 0 && all.every((e) => has(e) === wanted || (wanted === 1 && has(e) > 0))
      return { kind: 'setTechnique', ...range.value, technique, value: off ? 0 : wanted }
    })
  }
  /** Bends otherwise, by what the first note selected is bent now, in quarter tones. */
  function rebend(to: (now: number) => number) {
    void writing.edit(() => {
      const value = to(Math.round((onIt()[0]?.bend ?? 0) * 2))
      return { kind: 'setTechnique', ...range.value, technique: 'bend', value }
    })
  }
  /** Bends a half step farther with each press, and after the widest not at all. */
  const bend = () => rebend((now) => (now >= (tune.choices?.mostBend ?? 0) ? 0 : now - (now % 2) + 2))
  /** Puts a quarter tone on a bend, or takes it away. */
  const quarter = () => rebend((now) => (now % 2 ? now - 1 : now + 1))

  const transpose = (by: number) => void writing.edit({ kind: 'transpose', ...range.value, by })
  const across = (by: number) => {
    void writing.edit({ kind: 'moveString', ...range.value, by })
    if (!selected.value) goToString(string.value + by)
  }
  async function shift(by: 1 | -1) {
    const far = by * ticks.value
    await writing.edit({ kind: 'shift', ...range.value, by: far })
    if (anchor.value !== undefined) anchor.value += far
    tick.value += far
  }

  function copy() {
    const all = onIt()
    if (all.length === 0) return
    const { from, to } = range.value
    const end = Math.max(...all.map((e) => e.tick + e.ticks))
    clipboard.value = {
      events: all.map((e) => ({ ...e, tick: e.tick - from })),
      ticks: selected.value ? to - from : end - from,
    }
  }
  function cut() {
    copy()
    clear()
  }
  async function paste() {
    const held = clipboard.value
    if (!held) return
    await writing.edit({ kind: 'paste', from: tick.value, events: held.events })
    go(tick.value + held.ticks)
  }
  async function repeat() {
    const { from } = range.value
    const last = onIt().at(-1)
    if (!last) return
    const to = selected.value ? range.value.to : last.tick + last.ticks
    await writing.edit({ kind: 'repeat', from, to })
    anchor.value = to
    tick.value = to + (to - from)
  }
  function all() {
    const first = events.value[0]
    const end = Math.max(0, ...events.value.map((e) => e.tick + e.ticks))
    anchor.value = Math.min(first?.tick ?? 0, 0)
    tick.value = end
  }

  return {
    ...{ tick, string, base, grade, ticks, lengths, anchor, range, selected, here, clipboard, events },
    ...{ go, move, goToString, longer, setLength, regrade, figure, put, clear, rest, back, open, cutTime },
    ...{ play, bend, quarter, transpose, across, shift, copy, cut, paste, repeat, all },
  }
}

export type Cursor = ReturnType<typeof useCursor>

/** How far a note uses a technique, as an edit's value has it. */
function techniqueValue(e: LickEvent, name: string): number {
  switch (name) {
    case 'slide':
      return e.slideFrom ? (e.slideFrom < e.fret ? 1 : -1) : 0
    case 'slide out':
      return e.slideOut === 'up' ? 1 : e.slideOut === 'down' ? -1 : 0
    case 'hammer-on':
      return Number(e.hammerOn ?? false)
    case 'pull-off':
      return Number(e.pullOff ?? false)
    case 'pre-bend':
      return Number(e.preBend ?? false)
    case 'tie':
      return Number(e.tied ?? false)
    case 'release':
    case 'vibrato':
    case 'mute':
    case 'accent':
    case 'staccato':
    case 'grace':
    case 'rake':
    case 'ghost':
      return Number(e[name] ?? false)
    case 'trill':
      return e.trill === 1 ? -1 : Number(Boolean(e.trill))
  }
  return 0
}
