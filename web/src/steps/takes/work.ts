import { computed, ref, watch } from 'vue'
import { answer, client, type TakeDraft, type TakeEntry } from '../../api/client'
import { useAnswer } from '../../api/ask'
import { useView } from '../../address/view'
import { localTime } from '../../document/clock'
import { useTune } from '../../document/tune'
import { useSolos } from '../../document/solos'
import { usePlayer } from '../../sound/player'
import { microphone, standIn } from '../../sound/inputs'
import { midiInstrument, standInKeys } from '../../sound/keysinputs'
import { useRecording } from '../../sound/recording'
import { delayOf } from './delay'
import { useTakesQuery } from './address'

/** What an input is chosen by: a device, or the simulated player. */
export const standInName = 'stand-in'
export const standInKeysName = 'stand-in keys'
/** What the name of a MIDI instrument begins with. */
export const keysPrefix = 'midi:'

/** The takes of the tune, the one that is looked at, and how one is recorded. */
export function useTakesWork() {
  const tune = useTune()
  const view = useView()
  const player = usePlayer()
  const recording = useRecording()
  const query = useTakesQuery()

  const takes = ref<TakeEntry[]>([])
  const refusal = ref('')
  async function list() {
    if (!tune.id) return
    const all = await answer(client.GET('/api/takes', { params: { query: { chart: tune.id } } }))
    takes.value = all.toSorted((a, b) => b.began.localeCompare(a.began))
  }
  watch(() => tune.id, list, { immediate: true })

  const chosen = computed(() => takes.value.find((t) => t.id === query.take.value) ?? takes.value.at(0))
  const { answer: verdict } = useAnswer(
    () =>
      chosen.value && !chosen.value.damaged
        ? { id: chosen.value.id, version: chosen.value.version }
        : undefined,
    ({ id }, signal) => answer(client.GET('/api/takes/{id}/verdict', { params: { path: { id } }, signal })),
  )

  /** The solo that is meant, and that the simulated player plays; 0 for none. */
  const solo = ref(0)
  const solos = useSolos()
  watch(
    () => tune.id,
    async (id) => {
      solo.value = 0
      if (id) await solos.list(id)
      solo.value = solos.entries.find((entry) => !entry.damaged)?.id ?? 0
    },
    { immediate: true },
  )
  const { answer: line } = useAnswer(
    () => (solo.value && tune.music ? { id: solo.value, chart: tune.music, hands: tune.hands } : undefined),
    async ({ id, chart, hands }, signal) => {
      const kept = await answer(client.GET('/api/solos/{id}', { params: { path: { id } }, signal }))
      const choruses = kept.solo.choruses.slice(0, 1)
      const joined = await answer(
        client.POST('/api/compute/solo/line', { body: { chart, hands, choruses }, signal }),
      )
      return { name: kept.solo.name, phrase: { meter: joined.phrase.meter, events: joined.phrase.events } }
    },
  )

  const draft = (source: TakeDraft['source'], start: number): TakeDraft => ({
    name: `${tune.chart?.title ?? 'Take'}, ${new Date().toLocaleString()}`.slice(0, 60),
    began: new Date().toISOString(),
    chart: { ...tune.chart!, tempo: player.tempo },
    hands: tune.hands,
    position: view.position.value?.id,
    source,
    start,
    delay: source === 'microphone' ? delayOf(device.value) : 0,
    notes: [],
    plan: line.value?.phrase,
    planName: line.value?.name,
  })

  /** What a recording becomes that nothing is known of yet. */
  const emptyDraft = (source: TakeDraft['source'] = 'microphone') => draft(source, 0)

  /** The input that is chosen; empty for the one that the machine takes first. */
  const device = ref(localStorage.getItem('undaris-input') ?? '')
  watch(device, (now) => localStorage.setItem('undaris-input', now))

  /** The input for sound that is chosen; none for the first, and where another kind is. */
  const soundDevice = () =>
    device.value.startsWith(keysPrefix) || device.value.startsWith(standInName)
      ? undefined
      : device.value || undefined

  /** Begins a take: the band counts in and plays, and what is played is kept. */
  async function record() {
    refusal.value = ''
    if (!tune.chart) return
    if (device.value === standInName || device.value === standInKeysName) return recordStandIn()
    if (device.value.startsWith(keysPrefix)) {
      void player.playTune(1)
      const instrument = device.value.slice(keysPrefix.length)
      await recording.beginKeys(() => midiInstrument(instrument), draft('midi', 0), tune.id)
      if (recording.state !== 'recording') return void player.stop()
      return followBand()
    }
    // The sound is allowed while the key is pressed, before anything is waited for.
    void player.playTune(1)
    const input = device.value || undefined
    await recording.begin(() => microphone(input), draft('microphone', 0), tune.id, true)
    if (recording.state !== 'recording') return void player.stop()
    followBand()
  }

  async function recordStandIn() {
    const played = line.value?.phrase
    if (!played) {
      refusal.value = 'The simulated player needs a solo to play: plan one in step 5'
      return
    }
    const start = 0.5
    const chart = { ...tune.chart!, tempo: player.tempo }
    const open = async () => {
      const { data, response } = await client.POST('/api/compute/take/standin/sound', {
        body: { chart, hands: tune.hands, events: played.events, start, faults: faults.value },
        parseAs: 'arrayBuffer',
      })
      if (!response.ok) throw new Error('the simulated player cannot play this line')
      return standIn(data as unknown as ArrayBuffer)
    }
    recording.gone = () => void stop()
    if (device.value === standInKeysName) {
      const body = { chart, hands: tune.hands, events: played.events, start, faults: faults.value }
      const events = () => answer(client.POST('/api/compute/take/standin/keys', { body }))
      await recording.beginKeys(async () => standInKeys(await events()), draft('stand-in', start), tune.id)
      return recording.startsAt(start)
    }
    await recording.begin(open, draft('stand-in', start), tune.id, true)
    recording.startsAt(start)
  }
  const faults = ref({
    late: 0,
    uneven: 8,
    flat: 0,
    missed: 0,
    wrong: 0,
    swing: 0,
    soft: 0,
    drift: 0,
    seed: 1,
  })

  /** While the band plays, says again and again where bar 1 lies in what is recorded. */
  let timer: ReturnType<typeof setInterval> | undefined
  function followBand() {
    const found: number[] = []
    clearInterval(timer)
    timer = setInterval(() => {
      if (recording.state !== 'recording') return clearInterval(timer)
      const heard = player.heard()
      const first = heard?.chunk.pass ? heard.chunk.pass.place.chorus === 0 : true
      if (!heard || !first || found.length > 60) return
      const { performance } = heard.chunk
      const perTick = 60 / (performance.tempo * performance.beatTicks) / (player.speed / 100)
      found.push(recording.soundSeconds() - (heard.tick - performance.countIn) * perTick)
      found.sort((a, b) => a - b)
      recording.startsAt(found[Math.floor(found.length / 2)]!)
    }, 150)
  }

  /** Ends the take and shows it. */
  async function stop() {
    clearInterval(timer)
    recording.gone = undefined
    if (!player.silent) void player.stop()
    const kept = await recording.finish()
    if (!kept) return
    await list()
    await query.set({ take: kept.id, bench: 'verdict' })
    const seconds = Math.max(1, Math.round(kept.sound?.seconds ?? 1))
    const entry = {
      ...{
        began: localTime(new Date(kept.began)),
        seconds,
        kind: 'tune' as const,
        item: tune.chart?.title ?? '',
      },
      ...{ itemId: tune.id, tempo: kept.chart.tempo, note: 'recorded a take' },
    }
    await answer(client.POST('/api/practice/log', { body: entry })).catch(tune.tell)
  }

  return {
    ...{ takes, chosen, verdict, refusal, device, solo, solos, line, faults },
    ...{ list, record, stop, emptyDraft, soundDevice },
  }
}
export type TakesWork = ReturnType<typeof useTakesWork>
