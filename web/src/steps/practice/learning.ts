import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client, type KeptLick } from '../../api/client'
import { asEvent } from '../../tab/tab'
import { useTune } from '../../document/tune'
import { usePlayer } from '../../sound/player'

/** The tempo that a lick is taken to where nobody has said. */
const usualGoal = 100

/** A lick learned in parts: part by part at half speed, joined, and the whole made faster. */
export function useLearning(id: () => number | undefined) {
  const tune = useTune()
  const player = usePlayer()
  const goal = ref(usualGoal)
  const step = ref(0)
  /** The tempo's place on the ladder; parts stay on the first. */
  const rung = ref(0)
  /** The last tempo that was clean. */
  const clean = ref(0)
  /** Where the player cuts it, in its ticks; nowhere to cut it where it breathes. */
  const cuts = ref<number[]>([])

  const { answer: kept, refusal } = useAnswer(
    () => id(),
    (lick, signal) =>
      answer(client.GET('/api/licks/{id}', { params: { path: { id: lick } }, signal })) as Promise<KeptLick>,
  )
  const { answer: lesson } = useAnswer(
    () => (kept.value ? { lick: kept.value.lick, goal: goal.value, cuts: cuts.value } : undefined),
    (body, signal) => answer(client.POST('/api/compute/practice/lesson', { body, signal })),
  )
  watch(id, () => {
    step.value = rung.value = clean.value = 0
    cuts.value = []
  })
  const steps = computed(() => lesson.value?.steps ?? [])
  const tempos = computed(() => lesson.value?.tempos ?? [])
  const now = computed(() => steps.value[step.value])
  const isWhole = computed(() => step.value === steps.value.length - 1)
  const tempo = computed(() => tempos.value[Math.min(rung.value, tempos.value.length - 1)] ?? goal.value)
  const done = computed(() => isWhole.value && clean.value >= goal.value)

  const { answer: written } = useAnswer(
    () => (kept.value ? { lick: kept.value.lick, tempo: tempo.value } : undefined),
    (body, signal) => answer(client.POST('/api/compute/lick', { body, signal })),
  )
  /** The tab of the step: its notes alone, from the bar that it begins in. */
  const tab = computed(() => {
    const whole = written.value?.tab
    if (!whole || !now.value) return undefined
    const { from, to } = now.value
    const bar = Math.floor((from + whole.start) / whole.barTicks)
    const shift = Math.max(bar * whole.barTicks - whole.start, 0)
    const events = whole.events
      .filter((e) => e.tick >= from && e.tick < to)
      .map((e) => ({ ...e, tick: e.tick - shift }))
    return { ...whole, start: whole.start + shift, events }
  })

  /** Plays the step round and round, with a bar between. */
  function play() {
    const [shown, tabNow, part] = [written.value, tab.value, now.value]
    if (!shown || !tabNow || !part) return undefined
    const bar = (tick: number) => Math.floor((tick + shown.tab.start) / shown.tab.barTicks)
    const [first, last] = [bar(part.from), bar(Math.max(part.to - 1, part.from))]
    return {
      ...{ chart: shown.chart, hands: { instrument: shown.instrument } },
      ...{ from: first + 1, bars: last - first + 2, countIn: 1, silent: ['drums' as const] },
      line: { meter: tabNow.meter, start: tabNow.start, events: tabNow.events.map(asEvent) },
    }
  }
  function toggle() {
    if (!player.silent) return void player.stop()
    const request = play()
    if (!request) return
    player.setLoop(true)
    void player.play(request)
  }
  async function again() {
    if (player.silent) return
    const request = play()
    if (request) await player.play(request)
  }
  // What sounds goes along with the step and the tempo.
  watch(written, () => void again())
  watch(step, () => void again())

  const loopedBefore = player.loop
  onBeforeUnmount(() => player.setLoop(loopedBefore))

  /** It was clean: on to the next part, or the whole a step faster. */
  function wasClean() {
    if (!isWhole.value) {
      step.value++
      return
    }
    clean.value = tempo.value
    rung.value = Math.min(rung.value + 1, tempos.value.length - 1)
  }
  /** It was not: the whole a step slower; a part stays as it is. */
  function notYet() {
    if (isWhole.value) rung.value = Math.max(rung.value - 1, 0)
  }
  /** Cuts the lick before a note of the tab, or joins it there again. */
  function cutAt(index: number) {
    const whole = written.value?.tab.events
    const from = now.value?.from
    if (!whole || from === undefined) return
    const first = whole.findIndex((e) => e.tick >= from)
    const tick = whole[first + index]?.tick
    if (tick === undefined || tick === whole[0]?.tick) return
    const before = cuts.value.length ? cuts.value : steps.value.map((one) => one.from)
    cuts.value = before.includes(tick) ? before.filter((one) => one !== tick) : [...before, tick]
    step.value = rung.value = 0
  }
  const goTo = (n: number) => (step.value = n)

  return {
    ...{ kept, refusal, steps, step, now, tempo, goal, clean, tab, isWhole, done, tune },
    ...{ toggle, wasClean, notYet, goTo, cutAt },
  }
}

export type Learning = ReturnType<typeof useLearning>
