import { computed, ref, watch } from 'vue'
import { answer, client, type TakeDraft, type TakeEntry } from '../../api/client'
import { useAnswer } from '../../api/ask'
import { useView } from '../../address/view'
import { useTune } from '../../document/tune'
import { useSolos } from '../../document/solos'
import { usePlayer } from '../../sound/player'
import { standInKeysName, useInputChoice } from '../../sound/inputchoice'
import { standIn } from '../../sound/inputs'
import { standInKeys } from '../../sound/keysinputs'
import { useTakeRecorder } from '../../sound/takerecorder'
import { keysSource, soundSource, type Source } from '../../sound/source'
import { useTakesQuery } from './address'

/** The takes of the tune, the one that is looked at, and how one is recorded. */
export function useTakesWork() {
  const tune = useTune()
  const view = useView()
  const player = usePlayer()
  const recorder = useTakeRecorder()
  const input = useInputChoice()
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

  /** The other takes of the tune, and the one that the chosen take is set beside: the one before it, or none. */
  const others = computed(() => takes.value.filter((one) => one.id !== chosen.value?.id && !one.damaged))
  const earlier = computed(() => {
    const wanted = query.beside.value
    return (
      others.value.find((one) => one.id === wanted) ??
      (wanted ? others.value.find((one) => one.began < (chosen.value?.began ?? '')) : undefined)
    )
  })
  const { answer: beside } = useAnswer(
    () =>
      chosen.value && earlier.value && !chosen.value.damaged
        ? { id: chosen.value.id, other: earlier.value.id, version: chosen.value.version }
        : undefined,
    ({ id, other }, signal) =>
      answer(client.GET('/api/takes/{id}/beside/{other}', { params: { path: { id, other } }, signal })),
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
    chart: tune.chart!,
    speed: source === 'stand-in' ? undefined : player.speed,
    hands: tune.hands,
    position: view.position.value?.id,
    source,
    start,
    delay: source === 'stand-in' ? 0 : input.delay(),
    notes: [],
    plan: line.value?.phrase,
    planName: line.value?.name,
  })

  /** What a recording becomes that nothing is known of yet. */
  const emptyDraft = (source: TakeDraft['source'] = 'microphone') => draft(source, 0)

  /** Begins a take: the band counts in and plays, and what is played is kept. */
  async function record() {
    refusal.value = ''
    if (!tune.chart) return
    if (input.isStandIn()) return recordStandIn()
    await recorder.record(input.open, draft(input.isKeys() ? 'midi' : 'microphone', 0))
  }

  async function recordStandIn() {
    const played = line.value?.phrase
    if (!played) {
      refusal.value = 'The simulated player needs a solo to play: plan one in step 5'
      return
    }
    const start = 0.5
    const chart = tune.chart!
    const body = { chart, hands: tune.hands, events: played.events, start, faults: faults.value }
    const openSound = async () => {
      const { data, response } = await client.POST('/api/compute/take/standin/sound', {
        body,
        parseAs: 'arrayBuffer',
      })
      if (!response.ok) throw new Error('the simulated player cannot play this line')
      return soundSource(standIn(data as unknown as ArrayBuffer))
    }
    const openKeys = async () =>
      keysSource(standInKeys(await answer(client.POST('/api/compute/take/standin/keys', { body }))))
    const open: () => Promise<Source> = input.device === standInKeysName ? openKeys : openSound
    await recorder.recordWithout(open, draft('stand-in', start))
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

  /** Ends the take and shows it. */
  async function stop() {
    const kept = await recorder.stop()
    if (!kept) return
    await list()
    await query.set({ take: kept.id, bench: 'verdict' })
  }
  // A take that was ended in another step, or was heard again without the band, is in the list as it is now.
  watch(
    () => recorder.kept,
    () => void list().catch(tune.tell),
  )
  const looking = computed(() => recorder.looking)

  return {
    ...{ takes, chosen, verdict, beside, earlier, others, refusal, solo, solos, line, faults },
    ...{ list, record, stop, cancel: recorder.cancel, looking, emptyDraft },
  }
}
export type TakesWork = ReturnType<typeof useTakesWork>
