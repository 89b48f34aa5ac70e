import { computed, onBeforeUnmount, onMounted, shallowReactive } from 'vue'
import type { Problem } from '../api/client'
import type { History } from './history'

/** A document whose edits can be taken back. */
export interface Undoable {
  history: History<never> | History<unknown>
  undo: () => Promise<Problem | undefined>
  redo: () => Promise<Problem | undefined>
}

/** The documents that are being edited now: the tune, and what a step edits in it. */
const edited = shallowReactive<(() => Undoable | undefined)[]>([])

const present = () => edited.flatMap((one) => one() ?? [])

/**
 * One undo and one redo for all that is being edited: undo takes back what was done last,
 * whichever document it was done to, and says what that is.
 */
export function useUndo() {
  const undoable = computed(() => latest(present(), (u) => u.history.undoable.value?.order ?? 0))
  const redoable = computed(() => latest(present(), (u) => -(u.history.redoable.value?.order ?? Infinity)))
  return {
    label: computed(() => undoable.value?.history.undoable.value?.label),
    redoLabel: computed(() => redoable.value?.history.redoable.value?.label),
    undo: async () => undoable.value?.undo(),
    redo: async () => redoable.value?.redo(),
  }
}

/** The one with the highest measure; of redo steps the one that was taken back last. */
function latest(all: Undoable[], measure: (u: Undoable) => number): Undoable | undefined {
  let best: Undoable | undefined
  let most = 0
  for (const one of all) {
    const value = measure(one)
    if (value === 0 || value === -Infinity) continue
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
