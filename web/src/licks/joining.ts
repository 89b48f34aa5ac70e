import { computed } from 'vue'
import { answer, client, type KeptLick } from '../api/client'
import { useAnswer } from '../tune/answer'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/** A lick cut into its chords, and played end to end with another; the choices are in the address. */
export function useJoining(lick: () => KeptLick | undefined, licks: () => KeptLick[], wanted: () => boolean) {
  const tune = useTune()
  const view = useView()
  const other = computed(() => licks().find((l) => String(l.id) === view.text('with')))
  const notes = computed(() => Number(view.text('notes')) || 0)

  const { answer: joined, refusal } = useAnswer(
    () => {
      const position = view.position.value?.id
      const from = lick()
      if (!wanted() || !tune.chart || !from || !other.value || !position) return undefined
      return {
        ...{ chart: tune.chart, hands: tune.hands, position, lick: from.lick, with: other.value.lick },
        ...{ notes: notes.value, subdivision: view.subdivision.value },
      }
    },
    (body) => answer(client.POST('/api/compute/join', { body })),
  )
  const { answer: parts } = useAnswer(
    () => {
      const from = lick()
      return wanted() && from ? { lick: from.lick } : undefined
    },
    (body) => answer(client.POST('/api/compute/split', { body })),
  )
  return { other, notes, joined, refusal, parts }
}

export type Joining = ReturnType<typeof useJoining>
