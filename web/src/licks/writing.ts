import { computed, ref, shallowRef, watch } from 'vue'
import {
  answer,
  client,
  Problem,
  type KeptLick,
  type Lick,
  type LickEdit,
  type WrittenLick,
} from '../api/client'
import { useTune } from '../tune/tune'

export type LickState = 'saved' | 'saving' | 'empty' | 'elsewhere' | 'failed'

/**
 * A lick that is being written: every edit is computed by the server, shown at once,
 * saved behind in order, and can be undone. A new one is kept with its first note.
 */
export function useWriting(
  kept: () => KeptLick | undefined,
  opened: () => boolean,
  onKept: (l: KeptLick) => void,
) {
  const tune = useTune()
  const written = shallowRef<WrittenLick>()
  const problem = ref('')
  const said = ref('')
  const state = ref<LickState>('saved')
  const done = shallowRef<Lick[]>([])
  const undone = shallowRef<Lick[]>([])
  let id = 0
  let version = 0
  let editing: Promise<unknown> = Promise.resolve()
  let saving: Promise<unknown> = Promise.resolve()

  const heard = () => ({ tempo: tune.chart?.tempo, feel: tune.chart?.feel, swing: tune.chart?.swing })
  const compute = (lick: Lick, edit?: LickEdit) =>
    answer(client.POST('/api/compute/lick', { body: { lick, edit, ...heard() } }))

  /** A lick without notes, in the tune's key and over its first chord. */
  function blank(): Lick {
    const chord = tune.read?.moments[0]?.chord
    return {
      name: 'New lick',
      about: '',
      tonic: tune.chart?.key.tonic ?? 'A',
      meter: tune.chart?.meter ?? '4/4',
      events: [],
      over: chord ? [{ tick: 0, chord }] : [],
    }
  }

  // What is opened is read anew, unless it is what was just saved here.
  watch(
    () => (opened() ? (kept() ?? null) : undefined),
    async (one) => {
      if (one === undefined || (one && one.id === id)) return
      id = one?.id ?? 0
      version = one?.version ?? 0
      done.value = []
      undone.value = []
      problem.value = ''
      said.value = ''
      state.value = one ? 'saved' : 'empty'
      const from = one?.lick ?? blank()
      try {
        written.value = await compute(from)
      } catch (error) {
        problem.value = error instanceof Error ? error.message : String(error)
      }
    },
    { immediate: true },
  )

  function inOrder<T>(work: () => Promise<T>): Promise<T> {
    const next = editing.then(work)
    editing = next.catch(() => undefined)
    return next
  }

  /**
   * Makes one edit, or sets fields as they are; what stands in the way is said. An edit
   * that depends on the notes is given as a function, so that it sees what the edits
   * before it left.
   */
  const edit = (asked: LickEdit | Partial<Lick> | (() => LickEdit)) =>
    inOrder(async () => {
      const before = written.value?.lick
      if (!before) return
      const change = typeof asked === 'function' ? asked() : asked
      try {
        const next = 'do' in change ? await compute(before, change) : await compute({ ...before, ...change })
        problem.value = ''
        said.value = next.said.join('; ')
        if (JSON.stringify(next.lick) === JSON.stringify(before)) return
        written.value = next
        done.value = [...done.value, before]
        undone.value = []
        save(next.lick)
      } catch (error) {
        problem.value = error instanceof Error ? error.message : String(error)
      }
    })

  const step = (from: typeof done, to: typeof done) =>
    inOrder(async () => {
      const back = from.value.at(-1)
      const now = written.value?.lick
      if (!back || !now) return
      written.value = await compute(back)
      from.value = from.value.slice(0, -1)
      to.value = [...to.value, now]
      problem.value = ''
      said.value = ''
      save(back)
    })

  function save(lick: Lick) {
    if (lick.events.length === 0) {
      state.value = 'empty'
      return
    }
    if (state.value !== 'elsewhere') state.value = 'saving'
    saving = saving.then(async () => {
      if (state.value === 'elsewhere') return
      try {
        const got = id
          ? await answer(client.PUT('/api/licks/{id}', { params: { path: { id } }, body: { version, lick } }))
          : await answer(client.POST('/api/licks', { body: lick }))
        id = got.id
        version = got.version
        if (state.value === 'saving') state.value = 'saved'
        onKept(got)
      } catch (error) {
        state.value = error instanceof Problem && error.status === 412 ? 'elsewhere' : 'failed'
        problem.value = error instanceof Error ? error.message : String(error)
      }
    })
  }

  /** Keeps what is shown as a lick of its own, where another window saved over it. */
  async function keepAsNew() {
    const lick = written.value?.lick
    if (!lick) return
    id = 0
    state.value = 'saved'
    save({ ...lick, name: lick.name })
    await saving
  }

  const lick = computed(() => written.value?.lick)
  return {
    ...{ written, lick, problem, said, state, edit, keepAsNew },
    undo: () => step(done, undone),
    redo: () => step(undone, done),
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    settled: async () => {
      await editing
      await saving
    },
  }
}

export type Writing = ReturnType<typeof useWriting>
