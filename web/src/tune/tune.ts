import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { answer, client, Problem } from '../api/client'
import { useHands } from '../hands/hands'
import type {
  Chart,
  ChartEntry,
  Choices,
  EditChart,
  Hands,
  KeptChart,
  NeckMap,
  NewChart,
  ReadChart,
} from '../api/client'

export type SaveState = 'saved' | 'saving' | 'elsewhere' | 'failed'

/** What a player may change of a chart: fields set as they are, and edits that the server computes. */
export type Edit = Omit<EditChart, 'chart'> & { set?: Partial<Chart> }

/**
 * The tune under work: its chart as the server reads it, its map, and its
 * saving. Every edit is computed by the server, shown at once, saved in the
 * background in order, and can be undone as often as it was made.
 */
export const useTune = defineStore('tune', () => {
  const playing = useHands()
  const id = ref(0)
  const version = ref(0)
  const read = shallowRef<ReadChart>()
  const map = shallowRef<NeckMap>()
  const list = shallowRef<ChartEntry[]>([])
  const choices = shallowRef<Choices>()
  const saveState = ref<SaveState>('saved')
  const problem = ref('')
  const undone = shallowRef<Chart[]>([])
  const done = shallowRef<Chart[]>([])
  let saving: Promise<void> = Promise.resolve()
  let editing: Promise<unknown> = Promise.resolve()

  /** Does one edit after the other, so that each starts from what the last one left. */
  function inOrder<T>(work: () => Promise<T>): Promise<T> {
    const next = editing.then(work)
    editing = next.catch(() => undefined)
    return next
  }

  const chart = computed(() => read.value?.chart)
  /** What every computation is given of the player's hands: those the map is drawn for. */
  const hands = shallowRef<Hands>(playing.hands)
  const canUndo = computed(() => done.value.length > 0)
  const canRedo = computed(() => undone.value.length > 0)

  async function start() {
    const [, may] = await Promise.all([listAll(), answer(client.GET('/api/choices')), playing.load()])
    choices.value = may
  }

  async function listAll() {
    list.value = await answer(client.GET('/api/charts'))
  }

  async function open(chartId: number) {
    if (id.value === chartId && read.value) return
    await saving
    take(await answer(client.GET('/api/charts/{id}', { params: { path: { id: chartId } } })))
    done.value = []
    undone.value = []
    problem.value = ''
    await redraw()
  }

  function take(kept: KeptChart) {
    id.value = kept.id
    version.value = kept.version
    read.value = kept
    saveState.value = 'saved'
  }

  async function redraw() {
    if (chart.value) drawn(await draw(chart.value))
  }
  async function draw(of: Chart) {
    const mine = playing.hands
    const got = await answer(client.POST('/api/compute/map', { body: { chart: of, hands: mine } }))
    return { got, mine }
  }
  function drawn({ got, mine }: Awaited<ReturnType<typeof draw>>) {
    map.value = got
    hands.value = mine
  }
  // Other hands see another neck.
  watch(
    () => playing.hands,
    () => redraw().catch(tell),
  )

  /** Shows a chart, computed anew with an edit, and saves it; false where nothing is changed by it. */
  async function show(next: Chart, edit: Omit<EditChart, 'chart'> = {}) {
    const fresh = await answer(client.POST('/api/compute/chart', { body: { chart: next, ...edit } }))
    if (JSON.stringify(fresh.chart) === JSON.stringify(chart.value)) return false
    const around = await draw(fresh.chart)
    read.value = fresh
    drawn(around)
    save(fresh.chart)
    return true
  }

  /** Edits the chart. What stands in the way is told on the page. */
  async function edit(change: Edit) {
    const refused = await attempt(change)
    if (refused) tell(refused)
  }

  /** Edits the chart, and returns what stands in the way, for the caller to show in its place. */
  const attempt = (change: Edit) => inOrder(() => attemptNow(change))
  async function attemptNow({ set, ...computed }: Edit): Promise<Problem | undefined> {
    const before = chart.value
    if (!before) return undefined
    try {
      if (await show({ ...before, ...set }, computed)) {
        done.value = [...done.value, before]
        undone.value = []
      }
      if (saveState.value !== 'elsewhere') problem.value = ''
      return undefined
    } catch (error) {
      return error instanceof Problem ? error : new Problem(0, String(error))
    }
  }

  async function step(from: typeof done, to: typeof done) {
    const back = from.value.at(-1)
    const now = chart.value
    if (!back || !now) return
    try {
      await show(back)
      from.value = from.value.slice(0, -1)
      to.value = [...to.value, now]
    } catch (error) {
      tell(error)
    }
  }

  const undo = () => inOrder(() => step(done, undone))
  const redo = () => inOrder(() => step(undone, done))

  function save(next: Chart) {
    if (saveState.value !== 'elsewhere') saveState.value = 'saving'
    saving = saving.then(async () => {
      if (saveState.value === 'elsewhere') return
      try {
        const kept = await answer(
          client.PUT('/api/charts/{id}', {
            params: { path: { id: id.value } },
            body: { version: version.value, chart: next },
          }),
        )
        version.value = kept.version
        saveState.value = 'saved'
      } catch (error) {
        saveState.value = error instanceof Problem && error.status === 412 ? 'elsewhere' : 'failed'
        tell(error)
      }
    })
  }

  /** Waits until all that was edited is saved; false where it could not be. */
  async function settled() {
    await editing
    await saving
    return saveState.value === 'saved'
  }

  async function reload() {
    const chartId = id.value
    read.value = undefined
    problem.value = ''
    await open(chartId)
  }

  /** Saves the chart on screen over what was saved elsewhere, which stays among the versions. */
  const keepMine = () => inOrder(keepMineNow)
  async function keepMineNow() {
    const mine = chart.value
    if (!mine) return
    try {
      const theirs = await answer(client.GET('/api/charts/{id}', { params: { path: { id: id.value } } }))
      version.value = theirs.version
      saveState.value = 'saving'
      problem.value = ''
      save(mine)
    } catch (error) {
      tell(error)
    }
  }

  /** Keeps the chart on screen as a tune of its own. */
  const keepAsNew = () => inOrder(keepAsNewNow)
  async function keepAsNewNow() {
    if (!chart.value) return 0
    const kept = await answer(client.POST('/api/charts', { body: chart.value }))
    take(kept)
    problem.value = ''
    return kept.id
  }

  /** Brings an earlier version back as the newest; the present one stays among the versions. */
  const restore = (revision: number) => inOrder(() => restoreNow(revision))
  async function restoreNow(revision: number) {
    const before = chart.value
    await saving
    if (!before || saveState.value !== 'saved') return
    try {
      take(
        await answer(
          client.POST('/api/charts/{id}/revisions/{revision}/restore', {
            params: { path: { id: id.value, revision } },
            body: { version: version.value },
          }),
        ),
      )
      await redraw()
      done.value = [...done.value, before]
      undone.value = []
    } catch (error) {
      tell(error)
    }
  }

  async function create(fresh: NewChart) {
    const made = await answer(client.POST('/api/compute/scheme', { body: fresh }))
    return keep(made.chart)
  }

  /** Keeps a chart as a new tune. */
  async function keep(made: Chart) {
    const kept = await answer(client.POST('/api/charts', { body: made }))
    return kept.id
  }

  let noted = { id: 0, at: 0 }
  /** Notes that the tune was played; once a minute is enough. */
  function practised() {
    const now = Date.now()
    if (!id.value || (noted.id === id.value && now - noted.at < 60_000)) return
    noted = { id: id.value, at: now }
    void answer(client.POST('/api/charts/{id}/practised', { params: { path: { id: id.value } } })).catch(tell)
  }

  /** Forgets the open tune, so that it is read anew when it is opened again. */
  function close() {
    id.value = 0
    read.value = undefined
  }

  function tell(error: unknown) {
    problem.value = error instanceof Error ? error.message : String(error)
  }

  return {
    id,
    version,
    read,
    chart,
    hands,
    map,
    list,
    choices,
    saveState,
    problem,
    canUndo,
    canRedo,
    start,
    listAll,
    open,
    close,
    edit,
    attempt,
    undo,
    redo,
    settled,
    reload,
    keepMine,
    keepAsNew,
    restore,
    create,
    keep,
    practised,
    tell,
  }
})
