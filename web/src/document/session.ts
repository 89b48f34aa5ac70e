import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  answer,
  client,
  Problem,
  type KeptSession,
  type LogEntry,
  type Session,
  type SessionBlock,
} from '../api/client'
import { localTime, timeZone } from './clock'
import { noteDown, pendingLog } from './pendinglog'

/** What a block did, beside its minutes. */
export type Outcome = Partial<
  Pick<LogEntry, 'tempo' | 'goal' | 'right' | 'of' | 'went' | 'note' | 'key' | 'position'>
>

/** Which entry of the log a block makes; breaks and notes make none. */
const logKinds: Record<string, LogEntry['kind']> = {
  'warm-up': 'warm-up',
  cards: 'cards',
  lick: 'lick',
  exercise: 'exercise',
  tune: 'tune',
  free: 'free',
  phrase: 'phrase',
}

/** Seconds that count at most between two looks at the clock: a page that is hidden looks seldom. */
const longestTick = 120
/** So often what was practised is kept while a block is on, in seconds. */
const keptEvery = 30

/** The practice session that runs: its blocks, how long each was practised, and what is on. */
export const useSession = defineStore('session', () => {
  const kept = shallowRef<KeptSession>()
  const problem = ref('')
  const running = ref(false)
  /** Seconds of the block that is on, with those of an earlier sitting. */
  const seconds = ref(0)
  /** When the block was begun in this sitting. */
  let began = new Date()
  let timer: ReturnType<typeof setInterval> | undefined
  let last = 0
  let lastKept = 0

  const blocks = computed<SessionBlock[]>(() => kept.value?.session.blocks ?? [])
  const at = computed(() => kept.value?.session.at ?? 0)
  const block = computed<SessionBlock | undefined>(() => blocks.value[at.value])
  const over = computed(() => kept.value !== undefined && at.value >= blocks.value.length)
  /** Seconds that are left of the block; negative once its time is over. */
  const left = computed(() => (block.value ? block.value.minutes * 60 - seconds.value : 0))

  function tick() {
    const now = performance.now()
    // A machine that slept has not practised.
    if (running.value) seconds.value += Math.min((now - last) / 1000, longestTick)
    last = now
    if (running.value && now - lastKept > keptEvery * 1000) {
      lastKept = now
      void keepSeconds()
    }
  }
  function run() {
    running.value = true
    last = lastKept = performance.now()
    timer ??= setInterval(tick, 500)
  }
  function pause() {
    tick()
    running.value = false
    clearInterval(timer)
    timer = undefined
    void keepSeconds()
  }
  const stop = () => {
    running.value = false
    clearInterval(timer)
    timer = undefined
  }

  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      problem.value = ''
      return await work()
    } catch (error) {
      // Another window has gone on with it: what that has done is shown.
      if (error instanceof Problem && error.status === 412 && kept.value) {
        await load(kept.value.id)
        problem.value = 'Another window has gone on with this session; here is where it stands.'
        return undefined
      }
      problem.value = error instanceof Error ? error.message : String(error)
      return undefined
    }
  }

  function take(session: KeptSession) {
    kept.value = session
    seconds.value = session.session.blocks[session.session.at]?.seconds ?? 0
    began = new Date()
  }

  /** Begins a session of some blocks. */
  async function begin(minutes: number, planned: SessionBlock[]) {
    const body = { name: '', minutes, at: 0, blocks: planned, began: localTime(), zone: timeZone() }
    const session = await attempt(() => answer(client.POST('/api/sessions', { body })))
    if (!session) return
    take(session)
    run()
  }
  async function load(id: number) {
    stop()
    take(await answer(client.GET('/api/sessions/{id}', { params: { path: { id } } })))
  }
  /** Takes up the last session that was not ended, if there is one. */
  async function resume() {
    void pendingLog.flush()
    if (kept.value) return
    const all = (await attempt(() => answer(client.GET('/api/sessions')))) ?? []
    const open = all.findLast((one) => one.began && !one.ended && !one.template && !one.damaged)
    if (open) await attempt(() => load(open.id))
  }

  /** Saves follow each other, so that none is taken for that of another window. */
  let saving: Promise<unknown> = Promise.resolve()
  function replace(change: (session: Session) => Session): Promise<KeptSession | undefined> {
    const saved = saving.then(() =>
      attempt(async () => {
        if (!kept.value) return undefined
        const path = { id: kept.value.id }
        const body = { session: change(kept.value.session), version: kept.value.version }
        kept.value = await answer(client.PUT('/api/sessions/{id}', { params: { path }, body }))
        return kept.value
      }),
    )
    saving = saved
    return saved
  }
  const withSeconds = (session: Session): Session => ({
    ...session,
    blocks: session.blocks.map((one, n) =>
      n === session.at ? { ...one, seconds: Math.round(seconds.value) } : one,
    ),
  })
  async function keepSeconds() {
    if (kept.value && block.value) await replace(withSeconds)
  }

  /** Puts other blocks in the place of those that are still to come. */
  const change = (next: SessionBlock[]) =>
    kept.value ? replace((now) => ({ ...now, blocks: next })) : Promise.resolve(undefined)

  /** Notes an entry down; while the program is away it waits in the browser. */
  async function note(entry: LogEntry) {
    const refused = await noteDown(entry)
    if (refused) problem.value = refused.message
  }

  /** A block is being ended: pressed twice, it ends once. */
  let goingOn = false
  /** Ends the block, notes it down, and goes on to the next. */
  async function next(outcome: Outcome = {}) {
    const now = kept.value
    const done = block.value
    if (!now || !done || goingOn) return
    tick()
    const spent = Math.round(seconds.value)
    const kind = logKinds[done.kind]
    const to = now.session.at + 1
    const ended = to >= blocks.value.length ? localTime() : undefined
    goingOn = true
    const saved = await replace((session) => ({ ...withSeconds(session), at: to, ...(ended && { ended }) }))
    goingOn = false
    if (!saved) return
    const since = localTime(began)
    seconds.value = 0
    began = new Date()
    if (ended) stop()
    else run()
    if (kind && (spent > 0 || Object.keys(outcome).length > 0)) {
      const entry = {
        ...{ began: since, seconds: spent, kind },
        ...(['lick', 'exercise', 'tune'].includes(done.kind) ? { item: done.title, itemId: done.item } : {}),
        ...outcome,
      }
      await note(entry)
    } else if (outcome.note || outcome.went) {
      const entry = { began: since, seconds: spent, kind: 'other' as const, ...outcome }
      await note(entry)
    }
  }
  /** Leaves the session where it is; it can be gone on with on another day. */
  function leave() {
    stop()
    void keepSeconds().then(() => (kept.value = undefined))
  }
  /** Ends the session before its time. */
  async function finish() {
    if (!kept.value) return
    await replace((session) => ({ ...withSeconds(session), ended: localTime() }))
    stop()
    kept.value = undefined
  }
  /** Puts an ended session away. */
  const close = () => (kept.value = undefined)

  return {
    ...{ kept, problem, running, seconds, blocks, at, block, over, left },
    ...{ begin, resume, run, pause, next, change, leave, finish, close },
  }
})
