import { barsInRow, firstOfRow } from '../../controls/rows'
import { computed, ref, watch, type Ref } from 'vue'
import { useAnswer } from '../../api/ask'
import type { ChorusView } from '../../api/client'
import { useTune } from '../../document/tune'
import type { PerformanceRequest } from '../../api/client'
import { usePlayer } from '../../sound/player'
import { asEvent } from '../../tab/tab'
import type { SoloQuery } from './address'
import type { SoloWork } from './work'

interface Place {
  bar: Ref<number>
  bars: Ref<number>
  goToBar: (bar: number) => void
}

/** What is heard of a solo: which part of it, with the band or without. */
export function usePlaying(work: SoloWork, query: SoloQuery, { bar, bars, goToBar }: Place) {
  const tune = useTune()
  const player = usePlayer()
  const { solo, shown } = work
  const part = query.hear
  const dropped = ref(false)

  /** The line of all choruses, while it is what is heard. */
  const { answer: joined } = useAnswer(
    () =>
      part.value === 'all' && solo.value && tune.music
        ? { choruses: solo.value.choruses, music: tune.music, hands: tune.hands }
        : undefined,
    () => work.joined(),
  )
  const whole = computed(() => joined.value?.phrase)

  /** Which note of the chorus on screen is being heard. */
  const sounding = computed(() => (part.value === 'all' ? undefined : player.event))
  // The time line goes along with what is heard of the solo; with the tune all views go.
  watch(
    () => player.bar,
    (now) => {
      if (player.tuneSounds) return
      if (now !== undefined && firstOfRow(now) !== firstOfRow(bar.value)) goToBar(now)
    },
  )

  function source(of: ChorusView | undefined = shown.value): PerformanceRequest | undefined {
    if (!of || !tune.chart) return undefined
    const silent: PerformanceRequest['silent'] = dropped.value ? ['drums', 'bass', 'chords'] : []
    const countIn = player.loop ? 0 : 1
    if (part.value === 'all' && whole.value && of === shown.value) {
      return {
        chart: tune.chart,
        ...{ from: 1, bars: bars.value * (solo.value?.choruses.length ?? 1), countIn, silent },
        line: { meter: whole.value.meter, start: 0, events: whole.value.events },
      }
    }
    const row = firstOfRow(bar.value)
    const from = part.value === 'row' ? row : part.value === 'bar' ? bar.value : 1
    const count =
      part.value === 'row' ? Math.min(barsInRow, bars.value - row + 1) : part.value === 'bar' ? 1 : bars.value
    return {
      chart: tune.chart,
      ...{ from, bars: count, countIn, silent },
      line: { meter: of.tab.meter, start: 0, events: of.tab.events.map(asEvent) },
    }
  }
  function hear(of: ChorusView | undefined) {
    if (!player.silent) void player.stop()
    else void player.play(source(of))
  }
  /** The band falls silent, or comes in again: at once, if it is playing. */
  function drop() {
    dropped.value = !dropped.value
    if (player.state === 'playing') void player.play()
  }

  return { part, dropped, sounding, source, hear, drop }
}
