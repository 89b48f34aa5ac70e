import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useQuery } from '../address/useQuery'
import { chosenBar, following, heardAt } from '../address/following'
import { useView } from '../address/view'
import { text } from '../address/query'
import type { PassRequest, PerformanceRequest } from '../api/client'
import { useBand } from '../document/band'
import { useTune } from '../document/tune'
import { browserEngine } from './engine'
import { lineSource, type Ramp } from './lines'
import { createPlayer } from './machine'
import { parts, type Mix, type Part } from './mixer'
import { passSource, type Bars } from './passes'
import { useTuneLine } from './tuneline'
import { useWakeLock } from './wakelock'

/** What a step plays: a line over some bars, faster each time round if it is ramped, or the tune from a bar on. */
export type Playable = (PerformanceRequest & { ramp?: Ramp; showsChart?: boolean }) | { tuneFrom: number }
type Offer = () => Playable | undefined

/** Who asks for notes that are only to be shown. */
const shownNotes = 'shown notes'
/** Who asks for the tune. */
const theTune = 'the tune'

/** The speeds that make sense, in percent: below single notes are heard, no phrase. */
const slowest = 25
const fastest = 200

/** What is heard: the tune by its routine, or what a step is about. */
export const usePlayer = defineStore('player', () => {
  const tune = useTune()
  const band = useBand()
  const view = useView()
  const tuneLine = useTuneLine()
  const query = useQuery('', { loop: text() })

  /** A part that is heard alone, for as long as the page lives. */
  const soloPart = ref<Part>()
  const mix = computed<Mix>(() => ({
    levels: band.band.levels ?? {},
    muted: soloPart.value
      ? parts.filter((part) => part !== soloPart.value)
      : ((band.band.muted ?? []) as Part[]),
    sound: band.band.sound || 'guitar',
  }))
  /** The sound device holds the sound up. */
  const held = ref(false)
  /** Sounds of which something could not be loaded. */
  const missing = ref<string[]>([])
  const engine = browserEngine(mix.value, {
    held: (now) => (held.value = now),
    missing: (sounds) => (missing.value = sounds),
  })
  watch(mix, (now) => engine.setMix(now), { deep: true })
  const machine = createPlayer(engine, tune.tell)
  const { state, chunk, beat, chord, bar, speed, finishing } = machine

  /** Whether what is played goes round, and the bars that do: those that are chosen, or all of it. */
  const loop = ref(false)
  const bars = computed<Bars | undefined>(() => {
    const [from, to] = query.loop.value.split('-').map(Number)
    const last = Math.max(...(tune.read?.chordSpans ?? []).map((m) => m.bar), 0)
    return from && to && from <= to && to <= last ? { from, to } : undefined
  })
  const looping = () => (loop.value ? (bars.value ?? ('all' as const)) : undefined)

  /** What the step on screen would play, and which step that is. */
  const source = shallowRef<{ who: string; what: Offer }>()
  /** Which note of the line is heard, if it is one of the step on screen. */
  const event = computed(() => (machine.owner.value === source.value?.who ? machine.event.value : undefined))
  /** Whether it is the tune that is heard. */
  const tuneSounds = computed(() => machine.owner.value === theTune && state.value === 'playing')

  const style = () => ({
    style: band.band.style,
    click: band.band.click,
    seed: tune.id,
  })
  /** What every pass of the tune is asked with. */
  const passRequest = (): Omit<PassRequest, 'after' | 'at' | 'skip' | 'loop'> => ({
    chart: tune.music!,
    hands: tune.hands,
    routine: band.chosen!.routine,
    position: view.position.value?.id,
    strategy: view.strategy.value || undefined,
    ...style(),
    stopTime: band.band.stopTime,
    intro: (band.band.intro || 'one bar') as PassRequest['intro'],
    licks: tuneLine.licksFor(band.chosen!.routine),
    exercises: tuneLine.exercisesFor(band.chosen!.routine),
  })
  /** Plays the tune by its routine. */
  function playTune(from?: number) {
    if (!tune.chart) return
    following.value = true
    chosenBar.value = undefined
    const play = passSource(
      {
        ready: band.whenChosen,
        request: passRequest,
        loop: looping,
        line: tuneLine.lineOf,
      },
      from,
    )
    return machine.play(play, theTune)
  }

  /** Plays what the step on screen is about, or what is asked for here. */
  function play(asked: Playable | undefined = source.value?.what()) {
    tune.practised()
    if (!asked) return playTune(chosenBar.value)
    if ('tuneFrom' in asked) return playTune(asked.tuneFrom)
    const { ramp, showsChart, ...line } = asked
    const request = { hands: tune.hands, ...line }
    const overTune = line.chart === tune.chart || line.chart === tune.music
    const played = lineSource(request, { loop: looping, overTune, style, ramp, showsChart })
    return machine.play(played, source.value?.who)
  }

  /** Sounds a few notes to show what they are; it is over soon, and nothing that need be stopped. */
  function show(request: PerformanceRequest) {
    tune.practised()
    const once = lineSource(
      { hands: tune.hands, ...request },
      { loop: () => undefined, overTune: false, style },
    )
    return machine.play(once, shownNotes)
  }

  const silent = computed(
    () => state.value === 'silent' || state.value === 'stopping' || machine.owner.value === shownNotes,
  )
  const toggle = () => void (silent.value ? play() : machine.stop())

  function setLoop(on: boolean) {
    loop.value = on
    void machine.reloop()
  }
  /** Loops some bars, from now on; without bars nothing is looped. */
  async function loopBars(from?: number, to?: number) {
    const range =
      from === undefined || to === undefined ? undefined : `${Math.min(from, to)}-${Math.max(from, to)}`
    await query.set({ loop: range })
    loop.value = range !== undefined
    void machine.reloop()
  }
  // What is wished otherwise while the tune sounds is heard at once.
  watch(
    [
      () => JSON.stringify(tune.music),
      ...[() => band.band.style, () => band.band.stopTime, () => JSON.stringify(band.band.click)],
      () => JSON.stringify(band.band.line),
    ],
    () => tuneSounds.value && void machine.refresh(),
  )
  watch(
    () => band.chosen?.routine,
    (now, before) => {
      if (tuneSounds.value && now && before && JSON.stringify(now) !== JSON.stringify(before)) void playTune()
    },
  )

  /** The tempo that is written where it sounds: that of the pass, or of the tune. */
  const written = computed(() => chunk.value?.performance.tempo ?? tune.chart?.tempo ?? 100)
  const tempo = computed(() => Math.round((written.value * speed.value) / 100))
  function setSpeed(percent: number) {
    const allowed = tune.choices?.tempo ?? { least: 0, most: Infinity }
    const least = Math.max(slowest, (allowed.least / written.value) * 100)
    const most = Math.min(fastest, (allowed.most / written.value) * 100)
    machine.setSpeed(Math.min(Math.max(percent, least), most))
  }
  /** Goes so many beats a minute faster, or slower. */
  const faster = (by: number) => setSpeed(((tempo.value + by) / written.value) * 100)

  /** Whether what sounds is the tune in another key, or a vamp: then its bars are not the tune's. */
  const differsFromTune = computed(() => {
    if (chunk.value?.ownChart && state.value === 'playing') return true
    const pass = chunk.value?.pass
    if (!pass || !tune.chart) return false
    return pass.bars !== tune.read?.facts.bars || pass.chart.key.tonic !== tune.chart.key.tonic
  })
  // Views go along with the tune, and stay where it was left.
  watch([tuneSounds, chord, beat, differsFromTune], () => {
    const before = heardAt.value
    // The chords that the soloist follows, imagined ones too, may change where the band's do not.
    const heardNow = chunk.value?.pass?.stage.findLast((span) => span.tick <= (beat.value?.tick ?? -1))?.at
    const at = heardNow ?? chord.value?.at
    heardAt.value = tuneSounds.value && chord.value && !differsFromTune.value ? at : undefined
    if (heardAt.value === undefined && before !== undefined && following.value) void view.stayAt(before)
  })
  const wakeLock = useWakeLock(computed(() => state.value === 'playing'))

  return {
    ...{ state, silent, chunk, beat, chord, bar, event, loop, bars, speed, tempo, finishing, source },
    ...{ soloPart, mix, held, missing, tuneSounds, differsFromTune, staysAwake: wakeLock.held },
    ...{
      passRequest,
      lineOf: tuneLine.lineOf,
      allLines: tuneLine.allLines,
      play,
      playTune,
      show,
      toggle,
      stop: machine.stop,
      heard: machine.heard,
      sent: machine.sent,
      finish: machine.finish,
      skip: machine.skip,
    },
    ...{ setLoop, loopBars, setSpeed, faster },
  }
})

/** Makes space play what a step is about. What sounds goes on when the step is left. */
export function useSource(who: string, what: Offer) {
  const player = usePlayer()
  const mine = { who, what }
  onMounted(() => (player.source = mine))
  onBeforeUnmount(() => {
    if (player.source === mine) player.source = undefined
  })
}
