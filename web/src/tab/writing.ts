import { computed, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import type { Lick, LickEdit, WrittenLick } from '../api/client'
import type { Kept } from '../document/kept'
import { useLicks } from '../document/licks'

/** An edit of a lick: computed by the server, fields set as they are, or made from the notes as they are by then. */
export type LickChange = LickEdit | Partial<Lick> | (() => LickEdit)

/** A lick that is being written: what the editor shows of it, and how it is edited. */
export interface Writing {
  written: Readonly<Ref<WrittenLick | undefined>>
  lick: ComputedRef<Lick | undefined>
  /** What stands in the way of the last edit, and what had to be done beside it. */
  problem: Ref<string>
  notice: Ref<string>
  /** Edits of one gesture, such as the figures of a fret, are undone together. */
  edit(change: LickChange, gesture?: string): Promise<void>
}

const editLabels: Record<LickEdit['kind'], string> = {
  put: 'write a note',
  clear: 'take notes away',
  removeTime: 'cut time out',
  insertTime: 'make room',
  setLength: 'change a length',
  setTechnique: 'change how it is played',
  shift: 'move notes in time',
  transpose: 'move notes along the string',
  moveString: 'move notes to another string',
  paste: 'paste',
  repeat: 'play it again',
  setChord: 'a chord',
  clearChord: 'a chord',
}
const fields: Partial<Record<keyof Lick, string>> = {
  name: 'rename the lick',
  about: 'what it is good for',
  tags: 'change the tags',
  tonic: 'the key of the lick',
  meter: 'the meter of the lick',
}

/** What an edit of a lick does, in a few words: what undo would take back. */
export function labelOf(change: LickEdit | Partial<Lick>): string {
  if ('kind' in change) return editLabels[change.kind]
  const field = Object.keys(change)[0] as keyof Lick | undefined
  return (field && fields[field]) || 'edit the lick'
}

/** A lick of the library while it is written. */
export function useLickWriting(document: () => Kept<Lick, WrittenLick> | undefined): Writing {
  const licks = useLicks()
  const problem = ref('')
  const notice = ref('')
  watch(document, () => {
    problem.value = ''
    notice.value = ''
  })

  async function edit(change: LickChange, gesture?: string) {
    const one = document()
    if (!one) return
    let heard: string[] = []
    // The label of an edit that depends on the notes is not known before they are.
    const label = typeof change === 'function' ? editLabels.setTechnique : labelOf(change)
    const refused = await one.edit(
      label,
      async (now) => {
        const asked = typeof change === 'function' ? change() : change
        const written =
          'kind' in asked ? await licks.compute(now, asked) : await licks.compute({ ...now, ...asked })
        heard = written.remarks
        return { body: written.lick, shown: written }
      },
      gesture,
    )
    if (document() !== one) return
    problem.value = refused?.message ?? ''
    if (!refused) notice.value = heard.join('; ')
  }

  const written = computed(() => document()?.shown.value)
  return { written, lick: computed(() => document()?.body.value), problem, notice, edit }
}

/**
 * Notes that belong to something else while they are written: what is edited is given to
 * its owner, and what the owner makes of it is shown.
 */
export function useOwnedWriting(
  lick: () => Lick,
  give: (lick: Lick, label: string) => Promise<void>,
): Writing {
  const licks = useLicks()
  const written = shallowRef<WrittenLick>()
  const problem = ref('')
  const notice = ref('')
  let editing: Promise<unknown> = Promise.resolve()

  function inOrder(work: () => Promise<void>): Promise<void> {
    const mine = editing.then(work).catch((error: unknown) => {
      problem.value = error instanceof Error ? error.message : String(error)
    })
    editing = mine
    return mine
  }
  watch(
    () => JSON.stringify(lick()),
    (text) =>
      inOrder(async () => {
        if (written.value && JSON.stringify(written.value.lick) === text) return
        const read = await licks.compute(lick(), undefined, true)
        written.value = read
        // What the edit before had to say stays.
        if (read.remarks.length) notice.value = read.remarks.join('; ')
      }),
    { immediate: true },
  )

  const edit = (change: LickChange) =>
    inOrder(async () => {
      const before = written.value?.lick
      if (!before) return
      const asked = typeof change === 'function' ? change() : change
      const next =
        'kind' in asked ? await licks.compute(before, asked) : await licks.compute({ ...before, ...asked })
      problem.value = ''
      notice.value = next.remarks.join('; ')
      written.value = next
      if (JSON.stringify(next.lick) !== JSON.stringify(before)) await give(next.lick, labelOf(asked))
    })
  return { written, lick: computed(() => written.value?.lick), problem, notice, edit }
}
