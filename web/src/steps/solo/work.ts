import { computed, ref, watch } from 'vue'
import { useAnswer } from '../../api/ask'
import {
  answer,
  client,
  type Block,
  type Chorus,
  type ChorusEdit,
  type ChorusPlan,
  type ChorusView,
  type Solo,
} from '../../api/client'
import { useSolos } from '../../document/solos'
import { useTune } from '../../document/tune'
import type { SoloQuery } from './address'
import { labelOf } from './labels'
import { useOpening } from './opening'
import { usePlanning, withChorus } from './planning'
import { usePresent } from './present'
import { useChorusViews } from './views'

/**
 * The solo under work: its choruses where the tune is now, and what the server says of the
 * one that is looked at. Every edit is computed by the server, shown at once, saved behind,
 * and can be undone; looking elsewhere changes nothing.
 */
export function useSolo(query: SoloQuery) {
  const tune = useTune()
  const solos = useSolos()
  const present = usePresent()
  const views = useChorusViews()
  const problem = ref('')
  /** What the last edit had to say. */
  const notice = ref('')
  const on = () => ({ chart: tune.chart!, hands: tune.hands })

  function tell(error: unknown) {
    if (error instanceof DOMException && error.name === 'AbortError') return
    problem.value = error instanceof Error ? error.message : String(error)
  }
  const { document, id, loaded, load, take } = useOpening(query, tell, () => {
    planning.forget()
    notice.value = ''
    problem.value = ''
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
  const plan = computed<ChorusPlan>(() => chorus.value?.plan ?? planning.fresh(1))

  // What is said of the chorus that is looked at.
  const { answer: asked, refusal: notRead } = useAnswer(
    () => chorus.value && tune.music && { chorus: chorus.value, music: tune.music, hands: tune.hands },
    ({ chorus: of }, signal) => views.read(of, signal),
  )
  watch(notRead, (text) => text && tell(new Error(text)))
  const shown = computed<ChorusView | undefined>(() => (chorus.value ? asked.value : undefined))

  /** One edit of the solo as it lies now: given its choruses, it returns them changed. */
  async function change(
    label: string,
    work: (now: Solo) => Promise<Solo | undefined>,
    gesture?: string,
    one = document.value,
  ) {
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

  const planning = usePlanning(at, query, views, change)
  async function planAgain(of: Partial<ChorusPlan> = {}, more = false, gesture?: string) {
    if (!document.value) return
    notice.value = ''
    await planning.planAgain(of, more, gesture)
  }
  /** Plans again from the next seed. */
  const again = (more = false) => planAgain({ seed: planning.nextSeed(plan.value) }, more)
  /** Plans all choruses anew as one solo, by the plan of the one that is looked at. */
  async function planWhole() {
    if (!document.value) return
    notice.value = ''
    await planning.planWhole(plan.value)
  }

  /**
   * Makes edits of the chorus that is looked at now, whatever is looked at when they are
   * made; each returns the blocks that it has made.
   */
  function editor() {
    const one = document.value
    const index = at.value
    return async (of: ChorusEdit, label = labelOf(of)) => {
      let blocks: Block[] | undefined
      await change(
        label,
        async (now) => {
          const here = now.choruses[index]
          if (!here) return undefined
          const got = await editOf(here, of)
          notice.value = got.remarks.join('; ')
          const made = { ...here, blocks: got.blocks }
          blocks = got.blocks
          views.note(made, got)
          return withChorus(now, index, made)
        },
        undefined,
        one,
      )
      return blocks
    }
  }
  /** Makes one edit of the chorus that is looked at. */
  const edit = (of: ChorusEdit, label = labelOf(of)) => editor()(of, label)
  const editOf = (here: Chorus, of: ChorusEdit) =>
    views.ask(here, of, of.kind === 'reroll' ? planning.vocabulary(here.plan) : undefined)
  /** What the chorus would be after an edit, to be looked at before it is made. */
  const preview = (of: ChorusEdit) => (chorus.value ? editOf(chorus.value, of) : undefined)

  function set(of: Partial<Chorus>, label: string) {
    const index = at.value
    return change(label, async (now) => {
      const here = now.choruses[index]
      return here && withChorus(now, index, { ...here, ...of })
    })
  }
  const takeAlternative = (index: number) => {
    const other = planning.alternatives.value[index]
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
      const made = await planning.best(planning.fresh(Math.floor(Math.random() * 1000) + 1), [])
      if (!made) return
      const { value: alternatives } = planning.alternatives
      const { value: concessions } = planning.concessions
      await tune.settled()
      const name = `${tune.chart?.title}, a solo`.slice(0, 60)
      const body = { chartId: tune.id, ...on(), solo: { name, choruses: [made] } }
      const kept = await answer(client.POST('/api/solos', { body }))
      await solos.list(tune.id)
      await take(kept.id)
      planning.alternatives.value = alternatives
      planning.concessions.value = concessions
      await query.set({ id: kept.id, chorus: undefined })
    } catch (error) {
      tell(error)
    }
  }

  /** The line of all choruses, to be heard one after the other. */
  const joined = () =>
    answer(client.POST('/api/compute/solo/line', { body: { ...on(), choruses: solo.value?.choruses ?? [] } }))

  return {
    ...{ document, id, solo, shown, chorus, plan, at, loaded, problem, tell },
    ...{ alternatives: planning.alternatives, concessions: planning.concessions, notice, notStayed },
    ...{
      load,
      take,
      begin,
      planAgain,
      planWhole,
      again,
      edit,
      editor,
      preview,
      viewOf: views.read,
      set,
      takeAlternative,
      rename,
    },
    ...{ removeChorus, moveChorus, joined },
  }
}

export type SoloWork = ReturnType<typeof useSolo>
