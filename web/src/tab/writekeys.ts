import type { Cursor } from './cursor'

/** A key of the editor: how it is shown, what it does. */
export interface WriteKey {
  keys: string
  says: string
}

/** The keys of the editor, as they are listed beside it. */
export const writeKeys: WriteKey[] = [
  { keys: '← → ↑ ↓', says: 'where to write; with shift, select; with ctrl, a bar' },
  { keys: '0–9', says: 'the fret; two figures in quick succession are one' },
  { keys: '+ −', says: 'longer, shorter' },
  { keys: '.', says: 'dotted' },
  { keys: 't', says: 'triplet (of sixteenths: sextuplet)' },
  { keys: 'r', says: 'a rest, and on' },
  { keys: '_', says: 'tie to the note before' },
  { keys: 'h p', says: 'hammer-on, pull-off' },
  { keys: '/ \\', says: 'slide up, down into it' },
  { keys: 'o', says: 'slide out' },
  { keys: 'b q', says: 'bend a half step farther; a quarter tone' },
  { keys: 'e u', says: 'bent beforehand; let down' },
  { keys: 'v x', says: 'vibrato, mute' },
  { keys: 'a k g', says: 'accent, short, grace' },
  { keys: 'y Y', says: 'trill with the whole step above, with the half step' },
  { keys: 'j (', says: 'rake into it; ghost note' },
  { keys: 'i', says: 'room before the cursor' },
  { keys: 'del ⌫', says: 'take away the note; with shift, its time' },
  { keys: '< >', says: 'earlier, later by a length' },
  { keys: 'ctrl ↑ ↓', says: 'a half step up, down along the string' },
  { keys: 'alt ↑ ↓', says: 'the same sound on another string' },
  { keys: 'ctrl a c x v d', says: 'select all, copy, cut, paste, play again' },
  { keys: 'space', says: 'hear it, or what is selected' },
  { keys: 'esc', says: 'leave the tab: keys mean what they do elsewhere' },
]

/** Does what a key asks of the editor; false where it asks nothing. */
export function write(event: KeyboardEvent, cursor: Cursor, barTicks: number): boolean {
  const mod = event.ctrlKey || event.metaKey
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  if (mod) return withControl(key, event.shiftKey, cursor, barTicks)
  if (event.altKey) {
    if (key !== 'ArrowUp' && key !== 'ArrowDown') return false
    cursor.across(key === 'ArrowUp' ? -1 : 1)
    return true
  }
  if (/^[0-9]$/.test(key)) {
    cursor.figure(Number(key), event.timeStamp)
    return true
  }
  const acts: Record<string, () => unknown> = {
    ArrowLeft: () => cursor.move(-1, event.shiftKey),
    ArrowRight: () => cursor.move(1, event.shiftKey),
    ArrowUp: () => cursor.goToString(cursor.string.value - 1),
    ArrowDown: () => cursor.goToString(cursor.string.value + 1),
    Home: () => cursor.go(Math.min(cursor.events.value[0]?.tick ?? 0, 0), event.shiftKey),
    End: () => cursor.go(Math.max(0, ...cursor.events.value.map((e) => e.tick + e.ticks)), event.shiftKey),
    Delete: () => (event.shiftKey ? cursor.cutTime() : cursor.clear()),
    Backspace: () => (event.shiftKey ? cursor.cutTime() : cursor.back()),
    '+': () => cursor.longer(1),
    '=': () => cursor.longer(1),
    '-': () => cursor.longer(-1),
    '.': () => cursor.regrade('dotted'),
    t: () => cursor.regrade('triplet'),
    r: () => cursor.rest(),
    i: () => cursor.open(),
    b: () => cursor.bend(),
    q: () => cursor.quarter(),
    '<': () => cursor.shift(-1),
    '>': () => cursor.shift(1),
    '\\': () => cursor.play('slide', -1),
    Y: () => cursor.play('trill', -1),
    ...Object.fromEntries(techniqueKeys.map(({ key, name }) => [key, () => cursor.play(name)])),
  }
  const act = acts[key]
  act?.()
  return act !== undefined
}

/** The techniques that a key of their own turns on and off. */
export const techniqueKeys = [
  { key: 'h', name: 'hammer-on', short: 'hammer' },
  { key: 'p', name: 'pull-off', short: 'pull' },
  { key: '/', name: 'slide', short: 'slide' },
  { key: 'o', name: 'slide out', short: 'out' },
  { key: 'e', name: 'pre-bend', short: 'pre' },
  { key: 'u', name: 'release', short: 'release' },
  { key: 'v', name: 'vibrato', short: 'vibrato' },
  { key: 'x', name: 'mute', short: 'mute' },
  { key: 'a', name: 'accent', short: 'accent' },
  { key: 'k', name: 'staccato', short: 'staccato' },
  { key: 'g', name: 'grace', short: 'grace' },
  { key: '_', name: 'tie', short: 'tie' },
  { key: 'y', name: 'trill', short: 'trill' },
  { key: 'j', name: 'rake', short: 'rake' },
  { key: '(', name: 'ghost', short: 'ghost' },
]

function withControl(key: string, shift: boolean, cursor: Cursor, barTicks: number): boolean {
  const acts: Record<string, () => unknown> = {
    a: () => cursor.all(),
    c: () => cursor.copy(),
    x: () => cursor.cut(),
    v: () => cursor.paste(),
    d: () => cursor.repeat(),
    ArrowUp: () => cursor.transpose(1),
    ArrowDown: () => cursor.transpose(-1),
    ArrowLeft: () => cursor.go((Math.ceil(cursor.tick.value / barTicks) - 1) * barTicks, shift),
    ArrowRight: () => cursor.go((Math.floor(cursor.tick.value / barTicks) + 1) * barTicks, shift),
  }
  const act = acts[key]
  act?.()
  return act !== undefined
}
