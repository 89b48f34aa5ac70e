import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { latestOnly } from '../api/ask'
import { answer, client, Problem } from '../api/client'
import { nameClasses } from '../controls/classes'
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
import { reportFault } from '../api/fault'
import { createdAs } from '../api/created'
import { drafts } from './browser'
import { useHands } from './hands'
import { Collection } from './collection'
import type { Kept, Saved } from './kept'
import { gestureOf, labelOf } from './labels'
import { alwaysUndoable } from './undo'

/** What a player may change of a chart: fields set as they are, and edits that the server computes. */
export type ChartEdit = Omit<EditChart, 'chart'> & { set?: Partial<Chart> }

/** What the server says of a chart: its bars and times, and its map for the hands it was drawn for. */
export interface ShownChart {
  read: ReadChart
  /** A map for each key of the tune. */
  maps: { key: string; map: NeckMap }[]
  hands: Hands
}

/** A chart without what no computation depends on, so that renaming a tune asks nothing anew. */
const musicOf = (chart: Chart): Chart => ({ ...chart, title: 'tune', tags: undefined })
const sameMusic = (a: Chart, b: Chart) => JSON.stringify(musicOf(a)) === JSON.stringify(musicOf(b))

/**
 * The tune under work: its chart as the server reads it, its map, and its saving. Every
 * edit is computed by the server, shown at once, saved behind, and can be undone.
 */
/** How many tunes of the list are asked for at once. */
const listPiece = 2000

export const useTune = defineStore('tune', () => {
  const playing = useHands()
  const list = shallowRef<ChartEntry[]>([])
  const choices = shallowRef<Choices>()
  /** What stands in the way of the last thing asked, until it is closed. */
  const problem = ref('')
  const kept = shallowRef<Kept<Chart, ShownChart>>()

  const savedAs = (k: KeptChart): Saved<Chart> => ({ id: k.id, version: k.version, body: k.chart })
  /** What of the open tune no rule of today allows, and what stands in its place. */
  const mended = ref<string[]>([])
  const charts = new Collection<Chart, ShownChart>({
    name: 'tune',
    read: async (id) => {
      const got = await answer(client.GET('/api/charts/{id}', { params: { path: { id } } }))
      mended.value = got.mended ?? []
      return savedAs(got)
    },
    create: async (chart, uid) =>
      savedAs(await answer(client.POST('/api/charts', { body: chart, params: createdAs(uid) }))),
    replace: async (id, chart, version, keepBefore) =>
      savedAs(
        await answer(
          client.PUT('/api/charts/{id}', { params: { path: { id } }, body: { version, chart, keepBefore } }),
        ),
      ),
    restore: (id) => answer(client.POST('/api/charts/{id}/restore', { params: { path: { id } } })),
    show: (chart) => compute(chart),
    called: (chart) => chart.title,
    onSaved: () => (mended.value = []),
    drafts,
  })

  const id = computed(() => kept.value?.id.value ?? 0)
  const version = computed(() => kept.value?.version.value ?? 0)
  const read = computed(() => kept.value?.shown.value?.read)
  /** The tick that is looked at: positions and box are those of the key that holds there. */
  const lookedAt = ref(0)
  const keyHere = computed(() => read.value?.played.findLast((bar) => bar.tick <= lookedAt.value)?.key)
  const map = computed(() => {
    const maps = kept.value?.shown.value?.maps
    return (maps?.find((m) => m.key === keyHere.value) ?? maps?.[0])?.map
  })
  const chart = computed(() => read.value?.chart)
  /** The chart as questions are asked of it. */
  const music = computed(() => chart.value && musicOf(chart.value))
  /** What every computation is given of the player's hands: those the map is drawn for. */
  const hands = computed<Hands>(() => kept.value?.shown.value?.hands ?? playing.hands)
  const saveState = computed(() => kept.value?.state.value ?? 'saved')
  const saveReason = computed(() => kept.value?.saver.reason.value || kept.value?.waiting.value || '')

  alwaysUndoable(() => kept.value)

  /** Reads a chart, after an edit where there is one, and draws its map. */
  async function compute(next: Chart, edit: Omit<EditChart, 'chart'> = {}, before?: ShownChart) {
    const fresh = await answer(client.POST('/api/compute/chart', { body: { chart: next, ...edit } }))
    const mine = playing.hands
    const known = before && before.hands === mine && sameMusic(before.read.chart, fresh.chart)
    const maps = known ? before.maps : await draw(fresh, mine)
    return { body: fresh.chart, shown: { read: fresh, maps, hands: mine } }
  }
  /** Draws the map of every key of the tune. */
  function draw({ chart, played }: ReadChart, hands: Hands) {
    const firsts = played.filter((bar, n) => played.findIndex((other) => other.key === bar.key) === n)
    return Promise.all(
      firsts.map(async ({ key, tick }) => ({
        key,
        map: await answer(client.POST('/api/compute/chart/map', { body: { chart, hands, at: tick } })),
      })),
    )
  }

  /** A tune that is being read before its page asks for it. */
  let ahead: { id: number; done: Promise<void> } | undefined
  /** Reads what every view needs, and along with it the tune that will be opened first, if one will. */
  async function start(first?: number) {
    const hands = playing.load()
    if (first) {
      ahead = { id: first, done: hands.then(() => charts.of(first).load()) }
      // What is wrong with it is said when it is opened.
      ahead.done.catch(() => (ahead = undefined))
    }
    const [, may] = await Promise.all([listAll(), answer(client.GET('/api/choices')), hands])
    choices.value = may
    nameClasses(may.classes)
  }

  const latestList = latestOnly()
  async function listAll() {
    // The first are there at once, however many there are.
    let all: ChartEntry[] = []
    for (;;) {
      const query = { limit: listPiece, after: all.at(-1)?.id }
      const got = await latestList((signal) =>
        answer(client.GET('/api/charts', { params: { query }, signal })),
      )
      if (!got) return
      all = [...all, ...got]
      if (got.length < listPiece) break
      if (list.value.length < all.length) list.value = all
    }
    list.value = all
  }

  let opening = 0
  /** Opens a tune; where another is opened meanwhile, that one is. */
  async function open(chartId: number) {
    const mine = ++opening
    const one = charts.of(chartId)
    const read = ahead?.id === chartId ? ahead.done : one.load()
    ahead = undefined
    await read
    if (mine !== opening) return
    kept.value = one
    problem.value = ''
    if (one.shown.value?.hands !== playing.hands) await one.refresh()
  }

  // Other hands see another neck.
  watch(
    () => playing.hands,
    () => void kept.value?.refresh().catch(tell),
  )

  /** Edits the chart. What stands in the way is told on the page. */
  async function edit(change: ChartEdit) {
    const refused = await attempt(change)
    if (refused) tell(refused)
  }

  /** Edits the chart, and returns what stands in the way, for the caller to show in its place. */
  async function attempt(change: ChartEdit): Promise<Problem | undefined> {
    const { set, ...computed } = change
    const refused = await kept.value?.edit(
      labelOf(change),
      (now, shown) => compute({ ...now, ...set }, computed, shown),
      gestureOf(change),
    )
    if (!refused) problem.value = ''
    return refused
  }

  /** Makes the tune so many beats a minute faster, within what is allowed. */
  function makeFaster(by: number) {
    const { least = 0, most = 0 } = choices.value?.tempo ?? {}
    const now = chart.value?.tempo
    if (now === undefined) return
    const tempo = Math.min(Math.max(now + by, least), most)
    if (tempo !== now) void edit({ set: { tempo } })
  }

  /** Waits until all that was edited is saved; false where it could not be. */
  const settled = async () => (await kept.value?.settled()) ?? true

  /** Keeps the chart on screen as a tune of its own. */
  async function keepAsNew() {
    const made = (await kept.value?.keepAsNew()) ?? 0
    if (made) await listAll()
    return made
  }

  /** Brings an earlier version back as the newest; the present one stays among the versions. */
  async function restore(revision: number) {
    try {
      await kept.value?.replaceBy(`restore version ${revision}`, async (version) =>
        savedAs(
          await answer(
            client.POST('/api/charts/{id}/revisions/{revision}/restore', {
              params: { path: { id: id.value, revision } },
              body: { version },
            }),
          ),
        ),
      )
    } catch (error) {
      tell(error)
    }
  }

  async function create(fresh: NewChart) {
    const made = await answer(client.POST('/api/compute/chart/scheme', { body: fresh }))
    return keep(made.chart)
  }

  /** Keeps a chart as a new tune. */
  async function keep(made: Chart) {
    return (await answer(client.POST('/api/charts', { body: made }))).id
  }

  let noted = { id: 0, at: 0 }
  /** Notes that the tune was played; once a minute is enough. */
  function practised() {
    const now = Date.now()
    if (!id.value || (noted.id === id.value && now - noted.at < 60_000)) return
    noted = { id: id.value, at: now }
    // A note that is not taken, of a tune that was deleted say, is missed by nobody.
    answer(client.POST('/api/charts/{id}/practised', { params: { path: { id: id.value } } })).catch(() => {})
  }

  /** Forgets a tune, so that it is read anew when it is opened again. */
  function forget(chartId: number) {
    charts.forget(chartId)
    if (id.value === chartId) kept.value = undefined
  }

  function tell(error: unknown) {
    if (error instanceof DOMException && error.name === 'AbortError') return
    problem.value = error instanceof Error ? error.message : String(error)
    if (error instanceof Problem) reportFault(error)
  }

  return {
    ...{ id, version, read, chart, music, hands, map, lookedAt, keyHere, list, choices, kept, mended },
    ...{ saveState, saveReason, problem },
    ...{ start, listAll, open, forget, edit, attempt, settled, keepAsNew, restore, create, keep },
    ...{ makeFaster, practised, tell },
  }
})
