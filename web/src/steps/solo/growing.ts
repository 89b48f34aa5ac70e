import { computed } from 'vue'
import { useTune } from '../../document/tune'
import type { SoloWork } from './work'

/** How far the chorus is grown: from its targets alone to the whole of it. */
export function useGrowing(work: SoloWork) {
  const tune = useTune()
  const stages = computed(() => tune.choices?.stages ?? [])
  /** The stage as an index; a chorus without one is whole. */
  const stage = computed(() => {
    const now = stages.value.indexOf(work.chorus.value?.stage ?? '')
    return now < 0 ? stages.value.length - 1 : now
  })
  const thinnest = computed(() => stage.value <= 0)
  const whole = computed(() => stage.value >= stages.value.length - 1)
  const called = computed(() => stages.value[stage.value])
  function grow(by: number) {
    const last = stages.value.length - 1
    const next = Math.min(Math.max(stage.value + by, 0), last)
    if (next !== stage.value)
      void work.set({ stage: next === last ? undefined : stages.value[next] }, by > 0 ? 'grow it' : 'thin it')
  }
  return { called, thinnest, whole, grow }
}

export type Growing = ReturnType<typeof useGrowing>
