import type { ChorusEdit, ChorusPlan } from '../../api/client'

const editLabels: Record<ChorusEdit['kind'], string> = {
  lock: 'lock a block',
  unlock: 'unlock a block',
  mute: 'mute a block',
  unmute: 'unmute a block',
  move: 'move a block',
  stretch: 'stretch a block',
  makeRest: 'make a block a rest',
  swapLick: 'swap a lick',
  addBlock: 'add a block',
  writeNotes: 'write notes',
  alterNote: 'repair a note',
  reroll: 'roll again',
}

/** What an edit of a chorus does, in a few words: what undo would take back. */
export const labelOf = (edit: ChorusEdit) => editLabels[edit.kind]

/** What planning anew does, by what was changed of the plan. */
export function planLabel(change: Partial<ChorusPlan>): string {
  if ('blend' in change) return 'draw the blend'
  if ('density' in change) return 'notes a bar'
  if ('space' in change) return 'space'
  if ('position' in change) return 'plan here'
  return 'plan again'
}
