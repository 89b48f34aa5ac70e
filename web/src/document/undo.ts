import { computed, onBeforeUnmount, onMounted, ref, shallowReactive } from 'vue'
import type { Problem } from '../api/client'
import type { History } from './history'

/** A document whose edits can be taken back. */
export interface Undoable {
  /** What the document is called. */
  called?: string
  history: History<never> | History<unknown>
  undo: () => Promise<Problem | undefined>
  redo: () => Promise<Problem | undefined>
}

/** The documents that are being edited now: the tune, and what a step edits in it. */
const edited = shallowReactive<(() => Undoable | undefined)[]>([])

const present = () => edited.flatMap((one) => one() ?? [])

/** What was undone or redone last, in words, for a moment: it may be in a document that is not on screen. */
export const lastStep = ref('')
let forget: ReturnType<typeof setTimeout> | undefined
const shownFor = 4000
function say(text: string) {
  lastStep.value = text
  clearTimeout(forget)
  forget = setTimeout(() => (lastStep.value = ''), shownFor)
}

/**
 * One undo and one redo for all that is being edited: undo takes back what was done last, redo what was undone last,
 * whichever document that was in, and says what it is.
 */
export function useUndo() {
  const undoable = computed(() => latest(present(), (u) => u.history.undoable.value?.order ?? 0))
  const redoable = computed(() => latest(present(), (u) => u.history.redoable.value?.order ?? 0))
  return {
    label: computed(() => undoable.value?.history.undoable.value?.label),
    redoLabel: computed(() => redoable.value?.history.redoable.value?.label),
    undo: () => step('undo', undoable.value),
    redo: () => step('redo', redoable.value),
  }
}

async function step(which: 'undo' | 'redo', on: Undoable | undefined) {
  const label = (which === 'undo' ? on?.history.undoable.value : on?.history.redoable.value)?.label
  const refused = await on?.[which]()
  if (on && !refused)
    say(`${which === 'undo' ? 'Undone' : 'Redone'}: ${label}${on.called ? `, in ${on.called}` : ''}`)
  return refused
}

/** The one with the highest measure, of those that have one. */
function latest(all: Undoable[], measure: (u: Undoable) => number): Undoable | undefined {
  let best: Undoable | undefined
  let most = 0
  for (const one of all) {
    const value = measure(one)
    if (value === 0) continue
    if (!best || value > most) {
      best = one
      most = value
    }
  }
  return best
}

/** Edits of a document from outside the steps, for as long as the page lives. */
export function alwaysUndoable(what: () => Undoable | undefined) {
  edited.push(what)
}

/** Makes undo mean what a step edits, too, for as long as it is on screen. */
export function useUndoable(what: () => Undoable | undefined) {
  onMounted(() => edited.push(what))
  onBeforeUnmount(() => {
    const at = edited.indexOf(what)
    if (at >= 0) edited.splice(at, 1)
  })
}
