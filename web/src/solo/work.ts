import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import {
  answer,
  client,
  Problem,
  type Chorus,
  type ChorusEdit,
  type ChorusPlan,
  type ChorusView,
  type KeptLick,
  type KeptSolo,
  type Solo,
  type SoloEntry,
} from '../api/client'
import { useTune, type SaveState } from '../tune/tune'
import { useView } from '../tune/view'

/**
 * The solo under work: its choruses, what the server says of the one that is looked at,
 * and its saving. Every edit is computed by the server, shown at once, saved behind in
 * order, and can be undone.
 */
export function useSolo() {
  const tune = useTune()
  const view = useView()
  const entries = shallowRef<SoloEntry[]>([])
  const licks = shallowRef<KeptLick[]>([])
  const loaded = ref(false)
  const id = ref(0)
  const version = ref(0)
  const solo = shallowRef<Solo>()
  const shown = shallowRef<ChorusView>()
  const alternatives = shallowRef<ChorusView[]>([])
  const gave = shallowRef<string[]>([])
  const said = ref('')
  const problem = ref('')
  const saveState = ref<SaveState>('saved')
  const done = shallowRef<Solo[]>([])
  const undone = shallowRef<Solo[]>([])
  let editing: Promise<unknown> = Promise.resolve()
  let saving: Promise<unknown> = Promise.resolve()

  const at = computed(() => {
    const wanted = Number(view.text('chorus') || 1) - 1
    return Math.min(Math.max(wanted, 0), Math.max((solo.value?.choruses.length ?? 1) - 1, 0))
  })
  const chorus = computed(() => solo.value?.choruses[at.value])
  const plan = computed<ChorusPlan>(() => chorus.value?.plan ?? fresh(1))
  const on = () => ({ chart: tune.chart!, hands: tune.hands })

  /** What a new chorus is planned by: where the hand stands, licks of the library. */
  function fresh(seed: number): ChorusPlan {
    return { position: view.position.value?.id, fromLicks: true, seed }
  }

  /** The licks of a plan: those with one of its tags, or all. */
  function vocabulary(of: ChorusPlan) {
    if (!of.fromLicks) return []
    const all = licks.value.map((l) => l.lick)
    const tags = of.tags ?? []
    return tags.length ? all.filter((l) => l.tags?.some((tag) => tags.includes(tag))) : all
  }

  function inOrder<T>(work: () => Promise<T>): Promise<T | undefined> {
    const next = editing.then(work).catch((error: unknown) => {
      problem.value = error instanceof Error ? error.message : String(error)
      return undefined
    })
    editing = next
    return next
  }

  async function list() {
    entries.value = await answer(client.GET('/api/solos', { params: { query: { chart: tune.id } } }))
  }

  /** Opens the solo that the address names, or the tune's first. */
  const load = () =>
    inOrder(async () => {
      const [, known] = await Promise.all([list(), answer(client.GET('/api/licks'))])
      licks.value = known
      const wanted = Number(view.text('solo'))
      const first = entries.value.find((e) => e.id === wanted) ?? entries.value[0]
      if (first) take(await answer(client.GET('/api/solos/{id}', { params: { path: { id: first.id } } })))
      loaded.value = true
    })
  onMounted(load)
  watch(
    () => tune.id,
    (now, before) => {
      if (!now || !before) return
      forget()
      void load()
    },
  )

  function forget() {
    id.value = 0
    version.value = 0
    solo.value = undefined
    done.value = []
    undone.value = []
    saveState.value = 'saved'
  }

  function take(kept: KeptSolo) {
    id.value = kept.id
    version.value = kept.version
    solo.value = kept.solo
    saveState.value = 'saved'
    done.value = []
    undone.value = []
    alternatives.value = []
    gave.value = []
    said.value = ''
    problem.value = ''
  }

  /** Opens another solo of the tune. */
  const open = (other: number) =>
    inOrder(async () => {
      await saving
      take(await answer(client.GET('/api/solos/{id}', { params: { path: { id: other } } })))
      await view.set({ solo: String(other), chorus: undefined })
    })

  const read = (of: Chorus, edit?: ChorusEdit) =>
    answer(
      client.POST('/api/compute/chorus', {
        body: { ...on(), chorus: of, edit, licks: edit?.do === 're-roll' ? vocabulary(of.plan) : undefined },
      }),
    )

  // What is said of a chorus is computed anew when another is looked at, or its tune or
  // hands change.
  watch(
    () => [chorus.value, tune.chart, tune.hands] as const,
    async ([now], before) => {
      if (!now || !tune.chart) {
        shown.value = undefined
        return
      }
      if (before && before[0] === now && before[1] === tune.chart && before[2] === tune.hands) return
      if (known?.chorus === now && known.chart === tune.chart && known.hands === tune.hands) return
      try {
        const got = await read(now)
        if (chorus.value === now) shown.value = got
      } catch (error) {
        shown.value = undefined
        problem.value = error instanceof Error ? error.message : String(error)
      }
    },
    { immediate: true },
  )
  /** The chorus whose view is already there, so that it is not asked for again. */
  let known: { chorus: Chorus; chart: unknown; hands: unknown } | undefined

  /** Shows a chorus in the place of the present one, or as a new one, and saves it. */
  function show(next: Chorus, of: ChorusView | undefined, index = at.value) {
    const before = solo.value
    const choruses = [...(before?.choruses ?? [])]
    choruses[index] = next
    if (before) done.value = [...done.value, before]
    undone.value = []
    if (of) {
      known = { chorus: next, chart: tune.chart, hands: tune.hands }
      shown.value = of
    }
    solo.value = { name: before?.name ?? `${tune.chart?.title}, a solo`, choruses }
    save()
  }

  /** Plans a chorus: the one looked at, its locked blocks kept, or one more. */
  const planAgain = (change: Partial<ChorusPlan> = {}, more = false) =>
    inOrder(async () => {
      const next = { ...plan.value, ...change }
      const kept = more ? [] : (chorus.value?.blocks ?? []).filter((b) => b.locked)
      const got = await answer(
        client.POST('/api/compute/solo', { body: { ...on(), plan: next, licks: vocabulary(next), kept } }),
      )
      const best = got.best[0]
      if (!best) return
      problem.value = ''
      said.value = ''
      gave.value = got.gave.map((g) => g.says)
      alternatives.value = got.best
      const index = more ? (solo.value?.choruses.length ?? 0) : at.value
      show({ plan: next, blocks: best.blocks }, best, index)
      if (more && index > 0) await view.set({ chorus: String(index + 1) })
    })

  /** Makes one edit of the chorus that is looked at. */
  const edit = (change: ChorusEdit) =>
    inOrder(async () => {
      const now = chorus.value
      if (!now) return
      const got = await read(now, change)
      problem.value = ''
      said.value = got.said.join('; ')
      show({ ...now, blocks: got.blocks }, got)
    })

  /** What is said of any chorus. */
  const viewOf = (of: Chorus) => read(of)

  /** What the chorus would be after an edit, to be looked at before it is made. */
  const preview = (change: ChorusEdit) => (chorus.value ? read(chorus.value, change) : undefined)

  const set = (change: Partial<Chorus>) =>
    inOrder(async () => {
      const now = chorus.value
      if (!now) return
      const next = { ...now, ...change }
      show(next, await read(next))
    })

  const takeAlternative = (index: number) =>
    inOrder(async () => {
      const other = alternatives.value[index]
      if (other && chorus.value) show({ ...chorus.value, blocks: other.blocks, stage: undefined }, other)
      return Promise.resolve()
    })

  const removeChorus = () =>
    inOrder(async () => {
      const before = solo.value
      if (!before || before.choruses.length < 2) return
      done.value = [...done.value, before]
      undone.value = []
      solo.value = { ...before, choruses: before.choruses.filter((_, n) => n !== at.value) }
      save()
      await view.set({ chorus: String(Math.max(at.value, 1)) })
    })

  /** Moves the chorus that is looked at among the others. */
  const moveChorus = (by: number) =>
    inOrder(async () => {
      const before = solo.value
      const to = at.value + by
      if (!before || to < 0 || to >= before.choruses.length) return
      const choruses = [...before.choruses]
      choruses.splice(to, 0, ...choruses.splice(at.value, 1))
      done.value = [...done.value, before]
      undone.value = []
      solo.value = { ...before, choruses }
      save()
      await view.set({ chorus: String(to + 1) })
    })

  const rename = (name: string) =>
    inOrder(() => {
      const text = name.trim()
      if (solo.value && text && text !== solo.value.name) {
        done.value = [...done.value, solo.value]
        solo.value = { ...solo.value, name: text }
        save()
      }
      return Promise.resolve()
    })

  const step = (from: typeof done, to: typeof done) =>
    inOrder(() => {
      const back = from.value.at(-1)
      const now = solo.value
      if (back && now) {
        from.value = from.value.slice(0, -1)
        to.value = [...to.value, now]
        solo.value = back
        said.value = ''
        save()
      }
      return Promise.resolve()
    })

  function save() {
    const body = { solo: solo.value!, ...on() }
    const chartId = tune.id
    if (saveState.value !== 'elsewhere') saveState.value = 'saving'
    saving = saving.then(async () => {
      if (saveState.value === 'elsewhere') return
      try {
        const kept = id.value
          ? await answer(
              client.PUT('/api/solos/{id}', {
                params: { path: { id: id.value } },
                body: { ...body, version: version.value },
              }),
            )
          : await answer(client.POST('/api/solos', { body: { ...body, chartId } }))
        id.value = kept.id
        version.value = kept.version
        if (saveState.value === 'saving') saveState.value = 'saved'
        if (!entries.value.some((e) => e.id === kept.id)) await list()
      } catch (error) {
        saveState.value = error instanceof Problem && error.status === 412 ? 'elsewhere' : 'failed'
        problem.value = error instanceof Error ? error.message : String(error)
      }
    })
  }

  /** Begins another solo over the tune. */
  const begin = () =>
    inOrder(async () => {
      await saving
      forget()
      await view.set({ solo: undefined, chorus: undefined })
    }).then(() => planAgain(fresh(Math.floor(Math.random() * 1000) + 1), true))

  /** Keeps what is shown as a solo of its own, where another window saved over it. */
  const keepAsNew = () =>
    inOrder(async () => {
      id.value = 0
      saveState.value = 'saved'
      problem.value = ''
      save()
      await saving
      await view.set({ solo: String(id.value) })
    })

  const duplicate = () =>
    inOrder(async () => {
      await saving
      if (!id.value) return
      const copy = await answer(
        client.POST('/api/solos/{id}/duplicate', { params: { path: { id: id.value } } }),
      )
      await list()
      take(copy)
      await view.set({ solo: String(copy.id) })
    })

  const gone = shallowRef<{ id: number; name: string }>()
  const remove = () =>
    inOrder(async () => {
      await saving
      if (!id.value || !solo.value) return
      await answer(
        client.DELETE('/api/solos/{id}', {
          params: { path: { id: id.value }, query: { version: version.value } },
        }),
      )
      gone.value = { id: id.value, name: solo.value.name }
      id.value = 0
      solo.value = undefined
      await list()
      await view.set({ solo: undefined, chorus: undefined })
      const next = entries.value[0]
      if (next) take(await answer(client.GET('/api/solos/{id}', { params: { path: { id: next.id } } })))
    })
  const bringBack = () =>
    inOrder(async () => {
      if (!gone.value) return
      const back = await answer(
        client.POST('/api/solos/{id}/restore', { params: { path: { id: gone.value.id } } }),
      )
      gone.value = undefined
      await list()
      take(back)
      await view.set({ solo: String(back.id) })
    })

  const revisions = () =>
    answer(client.GET('/api/solos/{id}/revisions', { params: { path: { id: id.value } } }))
  const restore = (revision: number) =>
    inOrder(async () => {
      await saving
      const kept = await answer(
        client.POST('/api/solos/{id}/revisions/{revision}/restore', {
          params: { path: { id: id.value, revision } },
          body: { version: version.value },
        }),
      )
      take(kept)
    })

  /** The line of all choruses, to be heard one after the other. */
  const joined = () =>
    answer(client.POST('/api/compute/choruses', { body: { ...on(), choruses: solo.value?.choruses ?? [] } }))

  async function takeAway(format: string) {
    await editing
    await saving
    const link = document.createElement('a')
    link.href = `/api/solos/${id.value}/export/${format}`
    link.download = ''
    link.click()
  }

  return {
    ...{
      entries,
      licks,
      loaded,
      id,
      version,
      solo,
      shown,
      alternatives,
      gave,
      said,
      problem,
      saveState,
      gone,
    },
    ...{
      at,
      chorus,
      plan,
      edit,
      preview,
      viewOf,
      set,
      planAgain,
      takeAlternative,
      removeChorus,
      moveChorus,
      rename,
    },
    ...{ begin, keepAsNew, duplicate, remove, bringBack, open, revisions, restore, joined, takeAway },
    undo: () => step(done, undone),
    redo: () => step(undone, done),
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
  }
}

export type SoloWork = ReturnType<typeof useSolo>
