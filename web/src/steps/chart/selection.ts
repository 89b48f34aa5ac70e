import { computed, ref, watch } from 'vue'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'

/**
 * The written bars that are selected, from `first` to `last`, counted from 0.
 * The bar past the last one can be selected too: typing there adds a bar. The
 * selection follows the address and is put into it.
 */
export function useSelection() {
  const tune = useTune()
  const view = useView()
  const count = computed(() => tune.read?.bars.length ?? 0)
  const anchor = ref(0)
  const head = ref(0)

  const first = computed(() => Math.min(anchor.value, head.value))
  const last = computed(() => Math.max(anchor.value, head.value))
  /** How many bars of the chart are selected; none at the place for a new one. */
  const size = computed(() => Math.max(Math.min(last.value, count.value - 1) - first.value + 1, 0))

  /** Selects a bar; `extending` keeps the other end where it is. */
  function select(bar: number, extending = false) {
    const most = extending ? count.value - 1 : count.value
    head.value = Math.min(Math.max(bar, 0), most)
    if (!extending) anchor.value = head.value
    const moment = tune.read?.chordSpans.find((m) => m.source === head.value + 1)
    if (moment && view.moment.value?.source !== moment.source) void view.goTo(moment)
  }

  // The address leads: a change walked to, or gone back to, selects its bar.
  watch(
    () => view.moment.value?.tick,
    () => {
      const source = view.moment.value?.source
      if (source !== undefined && source - 1 !== head.value && head.value < count.value) select(source - 1)
    },
    { immediate: true },
  )
  // An edit may move the selected bar in time; the address goes along.
  watch(
    () => tune.read?.chordSpans,
    (moments) => {
      const moment = moments?.find((m) => m.source === head.value + 1)
      if (moment && view.moment.value?.source !== moment.source) void view.goTo(moment)
    },
  )
  // Bars that were taken out cannot stay selected.
  watch(count, (bars) => {
    head.value = Math.min(head.value, bars)
    anchor.value = Math.min(anchor.value, bars)
  })

  return { count, head, first, last, size, select }
}

export type Selection = ReturnType<typeof useSelection>
