import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useView } from '../../address/view'
import { latestOnly, useAnswer } from '../../api/ask'
import {
  answer,
  client,
  type Chorus,
  type ChorusEdit,
  type ChorusPlan,
  type ChorusView,
  type Solo,
} from '../../api/client'
import type { Kept } from '../../document/kept'
import { useLicks } from '../../document/licks'
import { useSolos, type SoloDocument } from '../../document/solos'
import { useTune } from '../../document/tune'
import type { SoloQuery } from './address'
import { labelOf, planLabel } from './labels'
import { usePresent, type PresentSolo } from './present'

/**
 * The solo under work: its choruses where the tune is now, and what the server says of the
 * one that is looked at. Every edit is computed by the server, shown at once, saved behind,
 * and can be undone; looking elsewhere changes nothing.
 */
export function useSolo(query: SoloQuery) {
  const tune = useTune()
  const view = useView()
  const licks = useLicks()
  const solos = useSolos()
  const present = usePresent()
  const loaded = ref(false)
  const problem = ref('')
  const alternatives = shallowRef<ChorusView[]>([])
  const concessions = shallowRef<string[]>([])
  const said = ref('')

  /** The solo that is open, or one that is kept with its first chorus. */
  const document = shallowRef<Kept<SoloDocument, undefined>>()
  const id = computed(() => document.value?.id.value ?? 0)
  const on = () => ({ chart: tune.chart!, hands: tune.hands })

  function tell(error: unknown) {
    if (error instanceof DOMException && error.name === 'AbortError') return
    problem.value = error instanceof Error ? error.message : String(error)
  }

  // Opening: the solo that the address names, or the tune's first; the latest wins.
  const latest = latestOnly()
  async function load() {
    const chartId = tune.id
    try {
      const [entries] = (await latest(() => Promise.all([solos.list(chartId), licks.load()]))) ?? []
      if (!entries || chartId !== tune.id) return
      const readable = entries.filter((e) => !e.damaged)
      const first = readable.find((e) => e.id === query.id.value) ?? readable[0]
      await take(first?.id)
      loaded.value = true
    } catch (error) {
      tell(error)
      loaded.value = true
    }
  }
  async function take(soloId: number | undefined) {
    if (soloId === undefined) {
      document.value = undefined
      return
    }
    const one = solos.documents.of(soloId)
    await one.load()
    if (one.body.value?.chartId !== tune.id) return
    document.value = one
    alternatives.value = []
    concessions.value = []
    said.value = ''
    problem.value = ''
  }
  onMounted(load)
  watch(
    () => tune.id,
    (now, before) => {
      if (!now || now === before) return
      document.value = undefined
      loaded.value = false
      void load()
    },
  )
  watch(query.id, (wanted) => {
    if (wanted && wanted !== id.value && loaded.value) void take(wanted).catch(tell)
  })

  // The solo where its tune is now. Nothing of it is kept until it is edited there.
  const { answer: moved, refusal: notMoved } = useAnswer(
    () => {
      const body = document.value?.body.value
      if (!body || !tune.chart || tune.id !== body.chartId) return undefined
      return { body, setting: { chart: tune.chart, hands: tune.hands } }
    },
    ({ body, setting }) => present(body, setting),
  )
  watch(notMoved, (text) => text && tell(new Error(text)))
  const solo = computed<Solo | undefined>(() => moved.value?.solo)
  const notStayed = computed(() => moved.value?.concessions ?? [])

  const at = computed(() =>
    Math.min(Math.max(query.chorus.value - 1, 0), Math.max((solo.value?.choruses.length ?? 1) - 1, 0)),
  )
  const chorus = computed(() => solo.value?.choruses[at.value])
  const plan = computed<ChorusPlan>(() => chorus.value?.plan ?? fresh(1))

  /** What a new chorus is planned by: where the hand stands, licks of the library. */
  function fresh(seed: number): ChorusPlan {
    return { position: view.position.value?.name, fromLicks: true, seed }
  }
  /** The licks of a plan: those with one of its tags, or all. */
  function vocabulary(of: ChorusPlan) {
    if (!of.fromLicks) return []
    const all = licks.readable.map((l) => l.lick)
    const tags = of.tags ?? []
    return tags.length ? all.filter((l) => l.tags?.some((tag) => tags.includes(tag))) : all
  }

  // What is said of the chorus that is looked at. What an edit has answered is not asked again.
  let known: { key: string; view: ChorusView } | undefined
  const keyOf = (of: Chorus) => JSON.stringify([of, tune.music, tune.hands])
  const ask = (of: Chorus, edit?: ChorusEdit, signal?: AbortSignal) =>
    answer(
      client.POST('/api/compute/chorus', {
        body: { ...on(), chorus: of, edit, licks: edit?.do === 're-roll' ? vocabulary(of.plan) : undefined },
        signal,
      }),
    )
  const { answer: asked, refusal: notRead } = useAnswer(
    () => chorus.value && tune.music && { chorus: chorus.value, music: tune.music, hands: tune.hands },
    ({ chorus: of }, signal) =>
      known?.key === keyOf(of) ? Promise.resolve(known.view) : ask(of, undefined, signal),
  )
  watch(notRead, (text) => text && tell(new Error(text)))
  const shown = computed(() => (chorus.value ? asked.value : undefined))

  /** One edit of the solo as it lies now: given its choruses, it returns them changed. */
  async function change(
    label: string,
    work: (now: PresentSolo['solo']) => Promise<Solo | undefined>,
    gesture?: string,
  ) {
    const one = document.value
    const refused = await one?.edit(
      label,
      async (body) => {
        const setting = on()
        const next = await work((await present(body, setting)).solo)
        return next && { body: { chartId: body.chartId, solo: next, ...setting }, shown: undefined }
      },
      gesture,
    )
    if (refused) tell(refused)
    else problem.value = ''
  }
  const withChorus = (now: Solo, index: number, next: Chorus): Solo => {
    const choruses = [...now.choruses]
    choruses[index] = next
    return { ...now, choruses }
  }

  /** Plans a chorus: the one looked at, its locked blocks kept, or one more. */
  async function planAgain(of: Partial<ChorusPlan> = {}, more = false, gesture?: string) {
    if (!document.value) return
    // A plan that is still being made gives way to the next, which has its changes, too.
    planning?.abort()
    const mine = new AbortController()
    planning = mine
    const wanted = more ? of : { ...pending, ...of }
    if (!more) pending = wanted
    let index = at.value
    await change(
      more ? 'one more chorus' : planLabel(of),
      async (now) => {
        const here = now.choruses[at.value]
        index = more ? now.choruses.length : at.value
        if (mine.signal.aborted) return undefined
        const next: ChorusPlan = { ...(here?.plan ?? fresh(1)), ...wanted }
        const kept = more ? [] : (here?.blocks ?? []).filter((b) => b.locked)
        const body = { ...on(), plan: next, licks: vocabulary(next), kept }
        const got = await answer(client.POST('/api/compute/solo', { body, signal: mine.signal })).catch(
          (error: unknown) => {
            if (mine.signal.aborted) return undefined
            throw error
          },
        )
        const best = got?.best[0]
        if (!got || !best || mine.signal.aborted) return undefined
        said.value = ''
        concessions.value = got.gave.map((g) => g.says)
        alternatives.value = got.best
        const made = { plan: next, blocks: best.blocks }
        known = { key: keyOf(made), view: best }
        return withChorus(now, index, made)
      },
      gesture,
    )
    if (planning === mine) {
      planning = undefined
      pending = {}
    }
    if (more && index > 0) await query.set({ chorus: index + 1 })
  }
  let planning: AbortController | undefined
  let pending: Partial<ChorusPlan> = {}
  /** Plans again from the next seed. */
  const again = (more = false) => planAgain({ seed: (pending.seed ?? plan.value.seed ?? 0) + 1 }, more)

  /** Makes one edit of the chorus that is looked at. */
  const edit = (asked: ChorusEdit, label = labelOf(asked)) =>
    change(label, async (now) => {
      const here = now.choruses[at.value]
      if (!here) return undefined
      const got = await ask(here, asked)
      said.value = got.said.join('; ')
      const made = { ...here, blocks: got.blocks }
      known = { key: keyOf(made), view: got }
      return withChorus(now, at.value, made)
    })

  /** What is said of any chorus. */
  const viewOf = (of: Chorus, signal?: AbortSignal) => ask(of, undefined, signal)
  /** What the chorus would be after an edit, to be looked at before it is made. */
  const preview = (asked: ChorusEdit) => (chorus.value ? ask(chorus.value, asked) : undefined)

  const set = (of: Partial<Chorus>, label: string) =>
    change(label, async (now) => {
      const here = now.choruses[at.value]
      return here && withChorus(now, at.value, { ...here, ...of })
    })
  const takeAlternative = (index: number) => {
    const other = alternatives.value[index]
    return other && set({ blocks: other.blocks, stage: undefined }, 'take another chorus')
  }
  const rename = (name: string) =>
    change('rename the solo', async (now) => (name.trim() ? { ...now, name: name.trim() } : undefined))

  async function removeChorus() {
    const gone = at.value
    await change('take a chorus out', async (now) =>
      now.choruses.length > 1 ? { ...now, choruses: now.choruses.filter((_, n) => n !== gone) } : undefined,
    )
    await query.set({ chorus: Math.max(gone, 1) })
  }
  /** Moves the chorus that is looked at among the others. */
  async function moveChorus(by: number) {
    const from = at.value
    const to = from + by
    if (to < 0 || to >= (solo.value?.choruses.length ?? 0)) return
    await change('move a chorus', async (now) => {
      const choruses = [...now.choruses]
      choruses.splice(to, 0, ...choruses.splice(from, 1))
      return { ...now, choruses }
    })
    await query.set({ chorus: to + 1 })
  }

  /** Begins another solo over the tune, with its first chorus. */
  async function begin() {
    try {
      const plan = fresh(Math.floor(Math.random() * 1000) + 1)
      const got = await answer(
        client.POST('/api/compute/solo', { body: { ...on(), plan, licks: vocabulary(plan), kept: [] } }),
      )
      const best = got.best[0]
      if (!best) return
      await tune.settled()
      const made = { plan, blocks: best.blocks }
      known = { key: keyOf(made), view: best }
      const kept = await answer(
        client.POST('/api/solos', {
          body: {
            ...{ chartId: tune.id, ...on() },
            solo: { name: `${tune.chart?.title}, a solo`.slice(0, 60), choruses: [made] },
          },
        }),
      )
      await solos.list(tune.id)
      await take(kept.id)
      concessions.value = got.gave.map((g) => g.says)
      alternatives.value = got.best
      await query.set({ id: kept.id, chorus: undefined })
    } catch (error) {
      tell(error)
    }
  }

  /** The line of all choruses, to be heard one after the other. */
  const joined = () =>
    answer(client.POST('/api/compute/choruses', { body: { ...on(), choruses: solo.value?.choruses ?? [] } }))

  return {
    ...{ document, id, solo, shown, chorus, plan, at, loaded, problem, tell },
    ...{ alternatives, concessions, said, notStayed },
    ...{ load, take, begin, planAgain, again, edit, preview, viewOf, set, takeAlternative, rename },
    ...{ removeChorus, moveChorus, joined },
  }
}

export type SoloWork = ReturnType<typeof useSolo>
