import { computed } from 'vue'
import { answer, client, type KeptLick } from '../api/client'
import { useAnswer } from '../tune/answer'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/** What can be said of a lick over its own chords; the notes put right are in the address. */
export function useVerdict(lick: () => KeptLick | undefined, wanted: () => boolean) {
  const tune = useTune()
  const view = useView()
  const repaired = computed(() => view.text('fix').split(' ').filter(Boolean).map(Number))
  const { answer: verdict, refusal } = useAnswer(
    () => {
      const position = view.position.value?.id
      const from = lick()
      if (!wanted() || !tune.chart || !from || !position) return undefined
      return {
        ...{ chart: tune.chart, hands: tune.hands, position, lick: from.lick },
        repair: repaired.value,
      }
    },
    (body) => answer(client.POST('/api/compute/verdict', { body })),
  )
  const repair = (note: number) => view.set({ fix: [...repaired.value, note].join(' ') })
  /** Puts the first note right that can be. */
  function repairNext() {
    const next = verdict.value?.offences.find((o) => o.repair)
    if (next) void repair(next.event)
  }
  const asItWas = () => view.set({ fix: undefined })
  return { verdict, refusal, repaired, repair, repairNext, asItWas }
}

export type VerdictWork = ReturnType<typeof useVerdict>
