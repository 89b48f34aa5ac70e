import { computed } from 'vue'
import { remembered, useAnswer } from '../../api/ask'
import { answer, client, type KeptLick } from '../../api/client'
import { useView } from '../../address/view'
import type { LicksQuery } from './address'
import type { LickQuestion } from './questions'

/** A lick cut into its chords, and played end to end with another; the choices are in the address. */
export function useJoining(
  lick: () => KeptLick | undefined,
  licks: () => KeptLick[],
  { about }: LickQuestion,
  query: LicksQuery,
  wanted: () => boolean,
) {
  const view = useView()
  const other = computed(() => licks().find((l) => l.id === query.behind.value))
  const notes = query.between

  const { answer: joined, refusal } = useAnswer(
    () => {
      if (!wanted() || !about.value || !other.value) return undefined
      return {
        ...{ ...about.value, with: other.value.lick },
        ...{ notes: notes.value, subdivision: view.subdivision.value },
      }
    },
    remembered((body, signal) => answer(client.POST('/api/compute/lick/join', { body, signal }))),
  )
  const { answer: parts } = useAnswer(
    () => {
      const from = lick()
      return wanted() && from ? { lick: from.lick } : undefined
    },
    (body, signal) => answer(client.POST('/api/compute/lick/split', { body, signal })),
  )
  return { other, notes, joined, refusal, parts }
}

export type Joining = ReturnType<typeof useJoining>
