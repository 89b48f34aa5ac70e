import { computed } from 'vue'
import { answer, client, type KeptLick } from '../api/client'
import { useAnswer } from '../tune/answer'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/** A lick at every other place: octaves, keys, positions; which is looked at is in the address. */
export function useElsewhere(lick: () => KeptLick | undefined, wanted: () => boolean) {
  const tune = useTune()
  const view = useView()
  const { answer: places, refusal } = useAnswer(
    () => {
      const position = view.position.value?.id
      const from = lick()
      if (!wanted() || !tune.chart || !from || !position) return undefined
      return { chart: tune.chart, hands: tune.hands, position, lick: from.lick }
    },
    (body) => answer(client.POST('/api/compute/elsewhere', { body })),
  )
  const groups = computed(() =>
    (['octaves', 'keys', 'positions'] as const).map((name) => ({
      name,
      places: (places.value ?? []).filter((p) => p.group === name),
    })),
  )
  const chosen = computed(
    () => places.value?.find((p) => p.name === view.text('there')) ?? places.value?.find((p) => !p.refused),
  )
  const choose = (name: string) => view.set({ there: name })
  return { groups, refusal, chosen, choose }
}

export type ElsewhereWork = ReturnType<typeof useElsewhere>
