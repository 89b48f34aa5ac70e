import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { answer, client, Problem } from '../api/client'
import type { Chart, ChartEntry, Choices, KeptChart, NeckMap, ReadChart } from '../api/client'

export type SaveState = 'saved' | 'saving' | 'elsewhere' | 'failed'

/** What a player may change of a chart: one of the computed edits, or a field. */
export interface Edit {
  tonic?: string
  scheme?: string
  feel?: string
  tempo?: number
  box?: string
}

/**
 * The tune under work: its chart as the server reads it, its map, and its
 * saving. Every edit is computed by the server, shown at once, saved in the
 * background in order, and can be undone as often as it was made.
 */
export const useTune = defineStore('tune', () => {
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
  const canUndo = computed(() => done.value.length > 0)
  const canRedo = computed(() => undone.value.length > 0)

  async function start() {
    const [all, may] = await Promise.all([
      answer(client.GET('/api/charts')),
      answer(client.GET('/api/choices')),
    ])
    list.value = all
    choices.value = may
  }

  async function open(chartId: number) {
    if (id.value === chartId && read.value) return
    await saving
    take(await answer(client.GET('/api/charts/{id}', { params: { path: { id: chartId } } })))
    done.value = []
    undone.value = []
    await redraw()
  }

  function take(kept: KeptChart) {
    id.value = kept.id
    version.value = kept.version
    read.value = kept
    saveState.value = 'saved'
  }

  async function redraw() {
    if (!chart.value) return
    map.value = await answer(client.POST('/api/compute/map', { body: { chart: chart.value } }))
  }

  /** Shows a chart, computed anew with an edit, and saves it. */
  async function show(next: Chart, edit: Pick<Edit, 'tonic' | 'scheme' | 'feel'> = {}) {
    const fresh = await answer(client.POST('/api/compute/chart', { body: { chart: next, ...edit } }))
    const drawn = await answer(client.POST('/api/compute/map', { body: { chart: fresh.chart } }))
    read.value = fresh
    map.value = drawn
    save(fresh.chart)
  }

  const edit = (change: Edit) => inOrder(() => editNow(change))
  async function editNow(change: Edit) {
    const before = chart.value
    if (!before) return
    const { tempo, box, ...computed } = change
    try {
      await show({ ...before, ...(tempo ? { tempo } : {}), ...(box ? { box } : {}) }, computed)
      done.value = [...done.value, before]
      undone.value = []
      problem.value = ''
    } catch (error) {
      tell(error)
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
    saveState.value = 'saving'
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
        list.value = list.value.map((entry) => (entry.id === kept.id ? entryOf(kept) : entry))
      } catch (error) {
        saveState.value = error instanceof Problem && error.status === 412 ? 'elsewhere' : 'failed'
        tell(error)
      }
    })
  }

  /** Waits until all that was edited is saved; false where it could not be. */
  async function settled() {
    await saving
    return saveState.value === 'saved'
  }

  async function reload() {
    const chartId = id.value
    read.value = undefined
    problem.value = ''
    await open(chartId)
  }

  /** Keeps the chart on screen as a tune of its own. */
  const keepAsNew = () => inOrder(keepAsNewNow)
  async function keepAsNewNow() {
    if (!chart.value) return 0
    const kept = await answer(client.POST('/api/charts', { body: chart.value }))
    list.value = [...list.value, entryOf(kept)]
    take(kept)
    problem.value = ''
    return kept.id
  }

  async function create(fresh: {
    title: string
    tonic: string
    scheme: string
    tempo: number
    feel: string
  }) {
    const made = await answer(client.POST('/api/compute/scheme', { body: fresh }))
    const kept = await answer(client.POST('/api/charts', { body: made.chart }))
    list.value = [...list.value, entryOf(kept)]
    return kept.id
  }

  function tell(error: unknown) {
    problem.value = error instanceof Error ? error.message : String(error)
  }

  return {
    id,
    read,
    chart,
    map,
    list,
    choices,
    saveState,
    problem,
    canUndo,
    canRedo,
    start,
    open,
    edit,
    undo,
    redo,
    settled,
    reload,
    keepAsNew,
    create,
    tell,
  }
})

function entryOf(kept: KeptChart): ChartEntry {
  const { title, key, tempo, feel } = kept.chart
  return { id: kept.id, version: kept.version, saved: kept.saved, title, key, tempo, feel }
}
