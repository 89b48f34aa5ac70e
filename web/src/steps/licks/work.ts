import { computed, shallowRef, watch } from 'vue'
import type { KeptLick, Lick, WrittenLick } from '../../api/client'
import type { Kept } from '../../document/kept'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import { useUndoable } from '../../document/undo'
import type { LicksQuery } from './address'

/** The lick under work: a document once it is written, with its edits before they are saved. */
export function useWork(query: LicksQuery) {
  const tune = useTune()
  const licks = useLicks()
  const writes = () => query.panel.value === 'write'

  /** A lick that is not of the library yet is written. */
  const fresh = computed(() => writes() && query.fresh.value)
  const listed = computed(() => licks.readable.find((l) => l.id === query.lick.value) ?? licks.readable[0])
  const lick = computed<KeptLick | undefined>(() => {
    const one = listed.value
    const edited = one && licks.documents.peek(one.id)?.body.value
    return one && edited?.events.length ? { ...one, lick: edited } : one
  })
  const newLick = shallowRef<Kept<Lick, WrittenLick>>()
  const document = computed(() => {
    if (fresh.value) return newLick.value
    const open = writes() || query.panel.value === 'versions'
    return open && listed.value ? licks.documents.of(listed.value.id) : undefined
  })
  watch(
    fresh,
    (now) => {
      // One that has no notes yet is written on; any other is a lick of the library by now.
      if (!now || (newLick.value && !newLick.value.id.value)) return
      newLick.value = licks.documents.fresh()
      void newLick.value.begin(licks.blank()).catch(tune.tell)
    },
    { immediate: true },
  )
  watch(document, (one) => one !== newLick.value && one?.load().catch(tune.tell), { immediate: true })
  // A new lick is found by its id as soon as it is kept.
  watch(
    () => newLick.value?.id.value,
    (id) => {
      if (!id || !newLick.value) return
      licks.documents.adopt(newLick.value)
      if (fresh.value) void query.set({ lick: id, fresh: undefined })
    },
  )
  useUndoable(() => document.value)

  return { lick, fresh, document }
}
