import { ref, shallowRef } from 'vue'
import type { KeptLick, Lick } from '../../api/client'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import type { LicksQuery } from './address'

/** Licks that are kept, deleted and brought back in the Licks step, and what was done last. */
export function useKeeping(query: LicksQuery) {
  const tune = useTune()
  const licks = useLicks()
  const notice = ref('')
  /** The lick that was kept last, to be taken back; the one that was deleted last, to be brought back. */
  const last = shallowRef<KeptLick>()
  const gone = shallowRef<KeptLick>()

  async function attempt(work: () => Promise<unknown>) {
    try {
      await work()
    } catch (error) {
      tune.tell(error)
    }
  }

  const keep = (own: Lick | undefined) =>
    attempt(async () => {
      if (!own) return
      last.value = await licks.create(own)
      notice.value = `Kept as ${own.name}.`
    })
  const keepAll = (parts: Lick[]) =>
    attempt(async () => {
      for (const part of parts) last.value = await licks.create(part)
      notice.value = `Kept ${parts.length} parts.`
    })
  const takeBack = () =>
    attempt(async () => {
      if (!last.value) return
      await licks.remove(last.value.id)
      notice.value = ''
      last.value = undefined
    })
  const remove = (one: KeptLick) =>
    attempt(async () => {
      await licks.remove(one.id)
      gone.value = one
      await query.set({ lick: undefined, panel: undefined })
    })
  const restore = () =>
    attempt(async () => {
      const id = gone.value?.id
      if (!id) return
      await licks.restore(id)
      gone.value = undefined
      await query.set({ lick: id })
    })
  /** Keeps a lick that was brought in, and goes on writing it. */
  const keepAndWrite = (own: Lick) =>
    attempt(async () => {
      const kept = await licks.create(own)
      await query.set({ lick: kept.id, panel: 'write', fresh: undefined })
    })

  async function takeAway(id: number, format: string) {
    // The file is of what is saved, so what is on its way is waited for.
    await licks.documents.peek(id)?.settled()
    const link = document.createElement('a')
    link.href = `/api/licks/${id}/export/${format}`
    link.download = ''
    link.click()
  }

  return { notice, last, gone, keep, keepAll, takeBack, remove, restore, keepAndWrite, takeAway }
}

export type Keeping = ReturnType<typeof useKeeping>
