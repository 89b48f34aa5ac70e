import { computed } from 'vue'
import { useAnswer } from '../../api/ask'
import { useTune } from '../../document/tune'
import type { SoloQuery } from './address'
import type { SoloWork } from './work'

/** Choruses beside each other: the alternatives of one seed, and those of the solo. */
export function useComparing(work: SoloWork, query: SoloQuery) {
  const tune = useTune()
  const alternatives = computed(() =>
    work.alternatives.value.map((one, n) => ({
      ...{ name: `chorus ${'ABC'[n] ?? n + 1}`, view: one },
      now: JSON.stringify(one.blocks) === JSON.stringify(work.chorus.value?.blocks),
    })),
  )
  const { answer } = useAnswer(
    () => {
      const solo = query.bench.value === 'compare' ? work.solo.value : undefined
      return solo && { solo, music: tune.music }
    },
    ({ solo }, signal) => Promise.all(solo.choruses.map((c) => work.viewOf(c, signal))),
  )
  const choruses = computed(() =>
    (answer.value ?? []).map((one, n) => ({ name: `chorus ${n + 1}`, view: one, now: n === work.at.value })),
  )
  return { alternatives, choruses }
}
