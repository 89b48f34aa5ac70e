import { computed, onBeforeUnmount, onMounted, shallowRef } from 'vue'
import { useTune, type SaveState } from './tune'

/** Something that is edited in place of the tune: its own undo, and its own saving. */
export interface Undoing {
  undo: () => unknown
  redo: () => unknown
  canUndo: boolean
  canRedo: boolean
  saveState: SaveState
}

const inner = shallowRef<() => Undoing>()

/** What undo, redo and the word on saving are about: what the step edits, else the tune. */
export function useUndoing() {
  const tune = useTune()
  const now = computed<Undoing>(() => inner.value?.() ?? tune)
  return {
    undo: () => now.value.undo(),
    redo: () => now.value.redo(),
    get canUndo() {
      return now.value.canUndo
    },
    get canRedo() {
      return now.value.canRedo
    },
    get saveState() {
      return now.value.saveState
    },
  }
}

/** Makes undo mean what a step edits, for as long as the step is on screen. */
export function useOwnUndoing(what: () => Undoing) {
  onMounted(() => (inner.value = what))
  onBeforeUnmount(() => {
    if (inner.value === what) inner.value = undefined
  })
}
