import { computed } from 'vue'
import { remembered, useAnswer } from '../../api/ask'
import { answer, client } from '../../api/client'
import type { LicksQuery } from './address'
import type { LickQuestion } from './questions'

/** A lick at every other place: octaves, keys, positions; which is looked at is in the address. */
export function useVariants({ about }: LickQuestion, query: LicksQuery, wanted: () => boolean) {
  const { answer: places, refusal } = useAnswer(
    () => (wanted() ? about.value : undefined),
    remembered((body, signal) => answer(client.POST('/api/compute/lick/variants', { body, signal }))),
  )
  const groups = computed(() =>
    (['octaves', 'keys', 'positions'] as const).map((name) => ({
      name,
      places: (places.value ?? []).filter((p) => p.group === name),
    })),
  )
  const chosen = computed(
    () => places.value?.find((p) => p.name === query.there.value) ?? places.value?.find((p) => !p.refused),
  )
  const choose = (name: string) => query.set({ there: name })
  return { groups, refusal, chosen, choose }
}

export type VariantsWork = ReturnType<typeof useVariants>
