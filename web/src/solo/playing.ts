import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { ChorusView, LickEvent } from '../api/client'
import { asEvent } from '../licks/tab'
import { usePlayer } from '../sound/player'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'
import type { SoloWork } from './work'

/** What can be heard of a solo. */
const parts = [
  { value: 'chorus', text: 'this chorus' },
  { value: 'row', text: 'these four bars' },
  { value: 'bar', text: 'this bar' },
  { value: 'all', text: 'all choruses' },
]

interface Place {
  bar: Ref<number>
  bars: Ref<number>
  goToBar: (bar: number) => void
}

/** What is heard of a solo: which part of it, with the band or without. */
export function usePlaying(work: SoloWork, { bar, bars, goToBar }: Place) {
  const tune = useTune()
  const view = useView()
  const player = usePlayer()
  const { solo, shown } = work
  const part = computed(() => parts.find((p) => p.value === view.text('hear'))?.value ?? 'chorus')
  const dropped = ref(false)

  /** The line of all choruses, while it is what is heard. */
  const whole = shallowRef<{ meter: string; events: LickEvent[] }>()
  watch(
    () => [part.value, solo.value, tune.chart] as const,
    async ([what]) => {
      whole.value = undefined
      if (what !== 'all' || !solo.value) return
      try {
        const { phrase } = await work.joined()
        whole.value = { meter: phrase.meter, events: phrase.events }
      } catch (error) {
        tune.tell(error)
      }
    },
    { immediate: true },
  )

  /** Which note of the chorus on screen is being heard. */
  const sounding = computed(() => (part.value === 'all' ? undefined : player.event))
  // The time line goes along with what is heard.
  watch(
    () => player.bar,
    (now) => {
      if (now !== undefined && Math.floor((now - 1) / 4) !== Math.floor((bar.value - 1) / 4)) goToBar(now)
    },
  )

  function source(of: ChorusView | undefined = shown.value) {
    if (!of || !tune.chart) return undefined
    const silent: ('bass' | 'chords')[] = dropped.value ? ['bass', 'chords'] : []
    const countIn = player.loop ? 0 : 1
    if (part.value === 'all' && whole.value && of === shown.value) {
      return {
        chart: tune.chart,
        ...{ from: 1, bars: bars.value * (solo.value?.choruses.length ?? 1), countIn, silent },
        line: { meter: whole.value.meter, start: 0, events: whole.value.events },
      }
    }
    const row = Math.floor((bar.value - 1) / 4) * 4 + 1
    const from = part.value === 'row' ? row : part.value === 'bar' ? bar.value : 1
    const count =
      part.value === 'row' ? Math.min(4, bars.value - row + 1) : part.value === 'bar' ? 1 : bars.value
    return {
      chart: tune.chart,
      ...{ from, bars: count, countIn, silent },
      line: { meter: of.tab.meter, start: 0, events: of.tab.events.map(asEvent) },
    }
  }
  function hear(of: ChorusView | undefined) {
    if (player.state !== 'silent') player.stop()
    else void player.play(source(of))
  }
  function drop() {
    dropped.value = !dropped.value
    if (player.state === 'playing') void player.play()
  }

  return { parts, part, dropped, sounding, source, hear, drop }
}
