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

interface Open {
  id: number
  version: number
  lick?: Lick
}

export type LickState = 'saved' | 'saving' | 'empty' | 'elsewhere' | 'failed'

/**
 * A lick that is being written: every edit is computed by the server, shown at once,
 * saved behind in order, and can be undone. A new one is kept with its first note.
 */
export function useWriting(
  kept: () => KeptLick | undefined,
  opened: () => boolean,
  onKept: (l: KeptLick, open: boolean) => void,
  /** Where it is kept, if not in the library. */
  keepIn?: (lick: Lick) => Promise<KeptLick>,
) {
  const tune = useTune()
  const written = shallowRef<WrittenLick>()
  const problem = ref('')
  const said = ref('')
  const state = ref<LickState>('saved')
  const done = shallowRef<Lick[]>([])
  const undone = shallowRef<Lick[]>([])
  /**
   * The lick that is open: as it is kept, and as it is now. What was asked of a lick is
   * done to it and saved, even if another is opened meanwhile.
   */
  let open: Open = { id: 0, version: 0 }
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
      if (one === undefined || (one && one.id === open.id)) return
      const mine: Open = { id: one?.id ?? 0, version: one?.version ?? 0 }
      open = mine
      done.value = []
      undone.value = []
      problem.value = ''
      said.value = ''
      state.value = one ? 'saved' : 'empty'
      const from = one?.lick ?? blank()
      try {
        const got = await compute(from)
        mine.lick = got.lick
        if (mine === open) written.value = got
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
  const edit = (asked: LickEdit | Partial<Lick> | (() => LickEdit)) => {
    const mine = open
    return inOrder(async () => {
      const before = mine.lick
      if (!before || (typeof asked === 'function' && mine !== open)) return
      const change = typeof asked === 'function' ? asked() : asked
      try {
        const next = 'do' in change ? await compute(before, change) : await compute({ ...before, ...change })
        if (mine === open) {
          problem.value = ''
          said.value = next.said.join('; ')
        }
        if (JSON.stringify(next.lick) === JSON.stringify(before)) return
        mine.lick = next.lick
        if (mine === open) {
          written.value = next
          done.value = [...done.value, before]
          undone.value = []
        }
        save(mine)
      } catch (error) {
        if (mine === open) problem.value = error instanceof Error ? error.message : String(error)
        else tune.tell(error)
      }
    })
  }

  const step = (from: typeof done, to: typeof done) =>
    inOrder(async () => {
      const mine = open
      const back = from.value.at(-1)
      const now = mine.lick
      if (!back || !now) return
      const got = await compute(back)
      mine.lick = back
      if (mine === open) {
        written.value = got
        from.value = from.value.slice(0, -1)
        to.value = [...to.value, now]
        problem.value = ''
        said.value = ''
      }
      save(mine)
    })

  function save(mine: Open) {
    const lick = mine.lick
    if (!lick || lick.events.length === 0) {
      if (mine === open) state.value = 'empty'
      return
    }
    if (mine === open && state.value !== 'elsewhere') state.value = 'saving'
    saving = saving.then(async () => {
      if (mine === open && state.value === 'elsewhere') return
      try {
        const got = keepIn
          ? await keepIn(lick)
          : mine.id
            ? await answer(
                client.PUT('/api/licks/{id}', {
                  params: { path: { id: mine.id } },
                  body: { version: mine.version, lick },
                }),
              )
            : await answer(client.POST('/api/licks', { body: lick }))
        mine.id = got.id
        mine.version = got.version
        if (mine === open && state.value === 'saving') state.value = 'saved'
        onKept(got, mine === open)
      } catch (error) {
        if (mine !== open) return tune.tell(error)
        state.value = error instanceof Problem && error.status === 412 ? 'elsewhere' : 'failed'
        problem.value = error instanceof Error ? error.message : String(error)
      }
    })
  }

  /** Keeps what is shown as a lick of its own, where another window saved over it. */
  async function keepAsNew() {
    open = { id: 0, version: 0, lick: open.lick }
    state.value = 'saved'
    problem.value = ''
    save(open)
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
