import { computed } from 'vue'
import { remembered, useAnswer } from '../../api/ask'
import { answer, client } from '../../api/client'
import type { LicksQuery } from './address'
import type { LickQuestion } from './questions'

/** What can be said of a lick over its own chords; the notes put right are in the address. */
export function useVerdict({ about }: LickQuestion, query: LicksQuery, wanted: () => boolean) {
  const repaired = computed(() =>
    query.fix.value.split(' ').flatMap((one) => (/^\d{1,4}$/.test(one) ? Number(one) : [])),
  )
  const { answer: verdict, refusal } = useAnswer(
    () => (wanted() && about.value ? { ...about.value, repair: repaired.value } : undefined),
    remembered((body, signal) => answer(client.POST('/api/compute/lick/verdict', { body, signal }))),
  )
  const repair = (note: number) => query.set({ fix: [...repaired.value, note].join(' ') })
  /** Puts the first note right that can be. */
  function repairNext() {
    const next = verdict.value?.issues.find((o) => o.repair)
    if (next) void repair(next.event)
  }
  const asItWas = () => query.set({ fix: undefined })
  return { verdict, refusal, repaired, repair, repairNext, asItWas }
}

export type VerdictWork = ReturnType<typeof useVerdict>
