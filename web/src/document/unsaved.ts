import { shallowReactive, type Ref } from 'vue'
import type { SaveState } from './saver'

/** A document as the page asks whether it is saved. */
interface Unsaved {
  readonly state: Readonly<Ref<SaveState>>
  settled(): Promise<boolean>
  /** It is counted though it is saved: it may have something unsaved at any moment. */
  readonly stays?: boolean
}

/** Every document that was edited on this page. */
const edited = shallowReactive(new Set<Unsaved>())
export const anythingUnsaved = () => [...edited].some((one) => one.state.value !== 'saved')
/** How the saving of everything that was edited stands. */
export const saveStates = () => [...edited].map((one) => one.state.value)
/** Saves at once whatever is not saved; says whether all of it is. */
export async function saveAll(): Promise<boolean> {
  const all = await Promise.all([...edited].map((one) => one.settled()))
  return all.every(Boolean)
}
/** Counts a document among those that were edited, until it is saved and another is. */
export function wasEdited(one: Unsaved) {
  for (const other of edited)
    if (other !== one && other.state.value === 'saved' && !other.stays) edited.delete(other)
  edited.add(one)
}
/** Takes out of the count what is no more. */
export const isGone = (one: Unsaved) => void edited.delete(one)

/** Those that a view on the page tells about itself. */
const shown = shallowReactive(new Map<Unsaved, number>())
/** Says that a view tells about a document; what is returned says that it does so no more. */
export function noticeIsShown(one: Unsaved): () => void {
  shown.set(one, (shown.get(one) ?? 0) + 1)
  return () => {
    const left = (shown.get(one) ?? 1) - 1
    if (left > 0) shown.set(one, left)
    else shown.delete(one)
  }
}
const blocked = ['conflict', 'gone', 'failed']
/** The documents that cannot be saved and that no view on the page tells about. */
export const blockedElsewhere = () =>
  [...edited].filter((one) => blocked.includes(one.state.value) && !shown.has(one))
