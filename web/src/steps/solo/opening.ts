import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { latestOnly } from '../../api/ask'
import type { Kept } from '../../document/kept'
import { useLicks } from '../../document/licks'
import { useSolos, type SoloDocument } from '../../document/solos'
import { useTune } from '../../document/tune'
import type { SoloQuery } from './address'

/** Which solo is open: the one that the address names, or the tune's first. The latest wins. */
export function useOpening(query: SoloQuery, tell: (error: unknown) => void, opened: () => void) {
  const tune = useTune()
  const licks = useLicks()
  const solos = useSolos()
  const loaded = ref(false)
  /** The solo that is open, or one that is kept with its first chorus. */
  const document = shallowRef<Kept<SoloDocument, undefined>>()
  const id = computed(() => document.value?.id.value ?? 0)

  const latest = latestOnly()
  async function load() {
    const chartId = tune.id
    try {
      const [entries] = (await latest(() => Promise.all([solos.list(chartId), licks.load()]))) ?? []
      if (!entries || chartId !== tune.id) return
      const readable = entries.filter((e) => !e.damaged)
      await take((readable.find((e) => e.id === query.id.value) ?? readable[0])?.id)
      loaded.value = true
    } catch (error) {
      tell(error)
      loaded.value = true
    }
  }
  /** Opens a solo of the tune, or none. */
  async function take(soloId: number | undefined) {
    if (soloId === undefined) {
      document.value = undefined
      return
    }
    const one = solos.documents.of(soloId)
    await one.load()
    if (one.body.value?.chartId !== tune.id) return
    document.value = one
    opened()
  }
  onMounted(load)
  watch(
    () => tune.id,
    (now, before) => {
      if (!now || now === before) return
      document.value = undefined
      loaded.value = false
      void load()
    },
  )
  watch(query.id, (wanted) => {
    if (wanted && wanted !== id.value && loaded.value) void take(wanted).catch(tell)
  })
  return { document, id, loaded, load, take }
}
