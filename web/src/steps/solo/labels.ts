import type { ChorusEdit, ChorusPlan } from '../../api/client'

const doings: Record<ChorusEdit['do'], string> = {
  lock: 'lock a block',
  unlock: 'unlock a block',
  mute: 'mute a block',
  unmute: 'unmute a block',
  move: 'move a block',
  stretch: 'stretch a block',
  rest: 'make a block a rest',
  swap: 'swap a lick',
  lay: 'lay a block',
  write: 'write notes',
  alter: 'repair a note',
  're-roll': 'roll again',
}

/** What an edit of a chorus does, in a few words: what undo would take back. */
export const labelOf = (edit: ChorusEdit) => doings[edit.do]

/** What planning anew does, by what was changed of the plan. */
export function planLabel(change: Partial<ChorusPlan>): string {
  if ('blend' in change) return 'draw the blend'
  if ('density' in change) return 'notes a bar'
  if ('space' in change) return 'space'
  if ('position' in change) return 'plan here'
  return 'plan again'
}
