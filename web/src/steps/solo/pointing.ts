import { ref, watch, type Ref } from 'vue'
import { useView } from '../../address/view'
import { useTune } from '../../document/tune'
import type { SoloWork } from './work'

/** What is pointed at in a chorus: a note, the notes of a figure; and the place in the form with it. */
export function usePointing(work: SoloWork) {
  const tune = useTune()
  const view = useView()
  /** The note that is chosen and those that a figure is about, as indexes of the chorus's events. */
  const chosen = ref<number>()
  const marked: Ref<number[]> = ref([])
  const mark = (events: number[]) => (marked.value = events)

  function forget() {
    chosen.value = undefined
    marked.value = []
  }
  watch(work.at, forget)
  watch(work.shown, (now, before) => {
    if (now && before && now.tab.events.length !== before.tab.events.length) forget()
  })

  function goToTick(tick: number) {
    const moment = tune.read?.chordSpans.findLast((m) => m.tick <= Math.max(tick, 0))
    if (moment) void view.goTo(moment)
  }
  function goToBar(n: number) {
    const moment = tune.read?.chordSpans.find((m) => m.bar === n)
    if (moment) void view.goTo(moment)
  }
  return { chosen, marked, mark, goToTick, goToBar }
}
