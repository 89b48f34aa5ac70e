import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client, type LiveNote, type Place, type TimedMarks } from '../../api/client'
import { useView } from '../../address/view'
import { localTime } from '../../document/clock'
import { useBand } from '../../document/band'
import { useTune } from '../../document/tune'
import { bandAt, followPasses } from '../../sound/barone'
import { useInputChoice } from '../../sound/inputchoice'
import { useListening } from '../../sound/listening'
import { usePlayer } from '../../sound/player'
import { useRecording } from '../../sound/recording'

export const degrees = [1, 3, 5, 7] as const
export const noteSets = ['chord tones', 'scale', 'box'] as const

/** A chorus over the band: one tone at each change, or nothing but given notes; heard from a hand or over MIDI. */
export function useTimed() {
  const tune = useTune()
  const band = useBand()
  const view = useView()
  const player = usePlayer()
  const recording = useRecording()
  const input = useInputChoice()
  const degree = ref<(typeof degrees)[number]>(3)
  const notes = ref<(typeof noteSets)[number]>('chord tones')
  const latencyMs = ref(0)
  const hits = ref<{ tick: number; midi: number; place?: Place }[]>([])
  const marks = shallowRef<TimedMarks>()
  const problem = ref('')
  /** It is played, and what is struck counts. */
  const running = ref(false)
  let began = new Date()
  let settings = { version: 0, kept: {} as Record<string, unknown> }

  const request = computed(() =>
    tune.music
      ? {
          ...{ chart: tune.music, hands: tune.hands, position: view.position.value?.id },
          ...{ degree: degree.value, notes: notes.value },
        }
      : undefined,
  )
  const { answer: timed, refusal } = useAnswer(
    () => request.value,
    (body, signal) => answer(client.POST('/api/compute/practice/timed', { body, signal })),
  )
  async function attempt(work: () => Promise<unknown>) {
    try {
      problem.value = ''
      await work()
    } catch (error) {
      problem.value = error instanceof Error ? error.message : String(error)
    }
  }
  void attempt(async () => {
    const kept = await answer(client.GET('/api/practice/settings'))
    settings = { version: kept.version, kept: { ...kept.settings } }
    latencyMs.value = kept.settings.latencyMs ?? 0
  })

  /** What is played on the instrument lights up and, while the chorus goes on, counts. */
  const played = shallowRef<LiveNote>()
  const listening = useListening((stroke) => (played.value = stroke))
  /** The second of what is heard at which the chorus begins, and how many of its ticks a second has. */
  let barOne = 0
  let ticksASecond = 0
  let unfollow = () => {}

  /** Where in the chorus it is now, in ticks; negative while it is counted in. */
  const now = () => bandAt(player)?.tick
  function start() {
    if (!request.value || !timed.value) return
    if (running.value) return void player.stop()
    hits.value = []
    marks.value = undefined
    began = new Date()
    running.value = true
    player.setLoop(false)
    ticksASecond = 0
    void player.play({
      ...{ chart: { ...request.value.chart }, from: 1, bars: timed.value.bars, countIn: 1 },
      ...{ style: band.band.style, silent: ['line' as const] },
    })
    unfollow()
    unfollow = followPasses(player, recording.soundSeconds, ([chorus]) => {
      barOne = chorus!.start
      ticksASecond = 1 / chorus!.perTick
    })
  }
  /** The targets one after the other, before they are to be played. */
  function hearTargets() {
    const [asked, all] = [request.value, timed.value]
    if (!asked || !all) return
    const places = all.targets.slice(0, 32).map(({ string, fret }) => ({ string, fret }))
    const silent = ['drums', 'bass', 'chords', 'click'] as ('drums' | 'bass' | 'chords' | 'click')[]
    void player.show({ chart: asked.chart, from: 1, countIn: 0, shape: { places }, silent })
  }
  function strike(midi: number, place?: Place) {
    const tick = now()
    if (running.value && tick !== undefined) hits.value = [...hits.value, { tick, midi, place }]
  }
  /** What was heard over the chorus: each note with what it comes to, as the whole of it tells. */
  async function heardHits() {
    if (!listening.listens.value || !ticksASecond || !timed.value) return []
    const late = input.delay() / 1000
    const begins = barOne + late
    const lead = 1
    const notes = await recording.notesBetween(begins - lead, begins + timed.value.ticks / ticksASecond)
    return notes.map(({ arrives }) => ({
      ...{ tick: (arrives.seconds - begins) * ticksASecond, midi: arrives.midi },
    }))
  }
  async function finish() {
    running.value = false
    unfollow()
    const asked = request.value
    if (!asked) return
    await attempt(async () => {
      const heard = await heardHits()
      const struck = hits.value.map(({ tick, midi }) => ({ tick, midi }))
      if (!heard.length && !struck.length) return
      const tempo = Math.round((asked.chart.tempo * player.speed) / 100)
      // What is heard has its device's delay taken off already; it takes the place of what a hand clicks.
      const body = heard.length
        ? { ...asked, hits: heard, tempo }
        : { ...asked, hits: struck, tempo, latencyMs: latencyMs.value }
      marks.value = await answer(client.POST('/api/compute/practice/timed/mark', { body }))
      const entry = {
        ...{ began: localTime(began), seconds: Math.round((Date.now() - began.getTime()) / 1000) },
        ...{ kind: 'cards' as const, item: `one tone in time: the ${degree.value}`, tempo },
        ...{ right: marks.value.on, of: marks.value.targets.length, position: view.position.value?.name },
      }
      await answer(client.POST('/api/practice/log', { body: entry }))
    })
  }
  watch(
    () => player.state,
    (state, before) => {
      if (running.value && state === 'silent' && before !== 'silent') void finish()
    },
  )
  onBeforeUnmount(() => {
    running.value = false
    unfollow()
  })

  /** Takes what the changes were met too late by in the middle as the way from the hand to the page. */
  const takeLatency = () =>
    attempt(async () => {
      if (!marks.value) return
      const found = Math.min(Math.max(latencyMs.value + marks.value.middleMs, 0), 500)
      const body = { version: settings.version, settings: { ...settings.kept, latencyMs: found } }
      const kept = await answer(client.PUT('/api/practice/settings', { body }))
      settings = { version: kept.version, kept: { ...kept.settings } }
      latencyMs.value = found
    })

  return {
    ...{ degree, notes, latencyMs, hits, marks, problem, running, timed, refusal, now },
    ...{ start, strike, hearTargets, takeLatency, listening, played },
  }
}
