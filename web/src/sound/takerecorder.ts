import { defineStore } from 'pinia'
import { ref } from 'vue'
import { answer, client, type KeptTake, type TakeDraft } from '../api/client'
import { localTime } from '../document/clock'
import { useTune } from '../document/tune'
import { followPasses, type HeardPass } from './barone'
import { usePlayer } from './player'
import { useRecording } from './recording'
import type { Source } from './source'

/**
 * The take that is being recorded, whatever step is on screen: with the passes that the band plays meanwhile, until it is
 * ended, anywhere. It belongs to the tune that it was begun over.
 */
export const useTakeRecorder = defineStore('take recorder', () => {
  const tune = useTune()
  const player = usePlayer()
  const recording = useRecording()
  /** Counts the takes that were kept, so that lists know when there is one more; and the last of them. */
  const kept = ref(0)
  const last = ref<KeptTake>()
  /** The band is looked for in the take that was kept last. */
  const looking = ref(false)
  let passes: HeardPass[] = []
  let chart: TakeDraft['chart'] | undefined
  let unfollow = () => {}
  let stopLooking = new AbortController()

  function setUp(take: TakeDraft) {
    unfollow()
    passes = []
    chart = take.chart
    recording.gone = () => void stop()
  }

  /** Begins a take over the band, which counts in and plays. Called while a key or the mouse is being pressed. */
  async function record(open: () => Promise<Source>, take: TakeDraft) {
    setUp(take)
    // The sound is allowed while the key is pressed, before anything is waited for.
    void player.playTune(1)
    await recording.begin(open, take, tune.id, true)
    if (recording.state !== 'recording') return void player.stop()
    unfollow = followPasses(player, recording.soundSeconds, (heard) => {
      if (recording.state !== 'recording') return unfollow()
      recording.startsAt(heard[0]!.start)
      passes = heard
    })
  }

  /** Begins a take that has the band's beginning known: of the simulated player. */
  async function recordWithout(open: () => Promise<Source>, take: TakeDraft) {
    setUp(take)
    await recording.begin(open, take, tune.id, true)
    recording.startsAt(take.start)
  }

  /** How the band has gone through the tune, as the take is kept with it. */
  const playedPasses = () =>
    passes.flatMap(({ start, speed, chunk }) =>
      chunk.pass && chart
        ? [{ start, speed, chart: { ...chart, ...chunk.pass.chart, title: chart.title } }]
        : [],
    )

  /** Ends the take and keeps it. */
  async function stop(): Promise<KeptTake | undefined> {
    unfollow()
    recording.gone = undefined
    if (!player.silent) void player.stop()
    const played = passes
    const { id, title } = recording.over
    const take = await recording.finish({}, playedPasses())
    passes = []
    if (!take) return undefined
    last.value = take
    kept.value++
    const entry = {
      ...{ began: localTime(new Date(take.began)), kind: 'tune' as const, item: title, itemId: id },
      seconds: Math.max(1, Math.round(take.sound?.seconds ?? 1)),
      tempo: Math.round((take.chart.tempo * (take.speed ?? 100)) / 100),
      note: 'recorded a take',
    }
    await answer(client.POST('/api/practice/log', { body: entry })).catch(tune.tell)
    if (take.source === 'microphone') void lookForBand(take, played)
    return take
  }

  /** Ends it and keeps nothing. */
  async function cancel() {
    unfollow()
    passes = []
    recording.gone = undefined
    if (!player.silent) void player.stop()
    await recording.cancel()
  }

  async function lookForBand(take: KeptTake, played: HeardPass[]) {
    stopLooking.abort()
    stopLooking = new AbortController()
    const { signal } = stopLooking
    looking.value = true
    try {
      const { findBandIn } = await import('./bandleak')
      if (await findBandIn(take, played, player.mix, signal)) kept.value++
    } catch (error) {
      if (!signal.aborted) tune.tell(error)
    } finally {
      if (stopLooking.signal === signal) looking.value = false
    }
  }

  return { kept, last, looking, record, recordWithout, stop, cancel }
})
