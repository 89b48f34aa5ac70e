import { computed, ref, watch } from 'vue'
import { answer, client } from '../../api/client'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import type { TakesWork } from './work'

/** The notes of the take that are picked in its tab: from one event to another; and what can become of them. */
export function usePicked(work: TakesWork) {
  const licks = useLicks()
  const tune = useTune()
  const { chosen, verdict } = work
  /** The notes that stand out in the tab: those that are picked, or those that a finding speaks of. */
  const marked = ref<number[]>([])
  const from = ref<number>()
  const to = ref<number>()
  const notice = ref('')
  watch(verdict, () => {
    marked.value = []
    from.value = to.value = undefined
  })
  function pick(event: number) {
    if (from.value === undefined || to.value !== from.value || event < from.value)
      from.value = to.value = event
    else to.value = event
    marked.value = Array.from({ length: to.value! - from.value! + 1 }, (_, n) => from.value! + n)
  }
  const heardOf = (event: number | undefined) => verdict.value?.heard.find((h) => h.event === event)
  const first = computed(() => heardOf(from.value))
  /** The bars of the notes that are picked; what is played before bar 1 counts to it. */
  const bars = computed(() => {
    const last = heardOf(to.value)
    return first.value && last ? { from: Math.max(1, first.value.bar), to: Math.max(1, last.bar) } : undefined
  })

  /** Keeps the notes that are picked as a lick. */
  async function keepLick() {
    const take = chosen.value
    if (!take || from.value === undefined || to.value === undefined) return
    const query = { from: from.value, to: to.value }
    try {
      const made = await answer(
        client.GET('/api/takes/{id}/lick', { params: { path: { id: take.id }, query } }),
      )
      const kept = await licks.create(made.lick)
      notice.value = `Kept as the lick ${kept.lick.name}${made.lost.length ? `; ${made.lost.join('; ')}` : ''}.`
    } catch (error) {
      tune.tell(error)
    }
  }
  return { marked, from, to, first, bars, notice, pick, keepLick }
}
export type PickedNotes = ReturnType<typeof usePicked>
