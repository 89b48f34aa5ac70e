import { computed, type Ref } from 'vue'
import { useView } from '../../address/view'
import { useTune } from '../../document/tune'
import type { SoloWork } from './work'

/** Where the plan's hand stands in a bar, or where the player looks instead. Looking plans nothing. */
export function useStanding(work: SoloWork, bar: Ref<number>) {
  const tune = useTune()
  const view = useView()
  const planned = computed(() => {
    const { shifts, position } = work.plan.value
    const wanted = shifts?.findLast((s) => s.bar <= bar.value)?.position ?? position
    return tune.map?.positions.find((p) => p.name === wanted || p.id === wanted)
  })
  const looked = computed(() => (view.wanted.value ? view.position.value : undefined))
  const span = computed(() => looked.value ?? planned.value ?? view.position.value!)
  /** The position to plan in instead, where the player looks at another than the plan's. */
  const elsewhere = computed(() =>
    looked.value && planned.value && looked.value.id !== planned.value.id ? looked.value : undefined,
  )
  const planHere = () => elsewhere.value && work.planAgain({ position: elsewhere.value.name })
  return { span, elsewhere, planHere }
}

export type Standing = ReturnType<typeof useStanding>
