import { shallowReactive, type Ref } from 'vue'
import type { SaveState } from './saver'

/** A document as the page asks whether it is saved. */
interface Unsaved {
  readonly state: Readonly<Ref<SaveState>>
  settled(): Promise<boolean>
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
/** Counts a document among those that were edited. */
export const wasEdited = (one: Unsaved) => void edited.add(one)
