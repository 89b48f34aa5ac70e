import { shallowRef, type Ref } from 'vue'
import { useView } from '../../address/view'
import {
  answer,
  client,
  type Block,
  type ChorusPlan,
  type ChorusView,
  type Lick,
  type Solo,
} from '../../api/client'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import type { SoloQuery } from './address'
import { planLabel } from './labels'
import type { ChorusViews } from './views'

/** Changes the open solo as it lies now. */
type Change = (
  label: string,
  work: (now: Solo) => Promise<Solo | undefined>,
  gesture?: string,
) => Promise<void>

/** The choruses of a solo with one of them changed, or one more. */
export function withChorus(now: Solo, index: number, next: Solo['choruses'][number]): Solo {
  const choruses = [...now.choruses]
  choruses[index] = next
  return { ...now, choruses }
}

/** How many choruses are planned as one where a solo has one. */
const wholeSolo = 3

/** Planning a chorus: what a plan begins with, the licks it may use, and the latest plan wins. */
export function usePlanning(at: Ref<number>, query: SoloQuery, views: ChorusViews, change: Change) {
  const tune = useTune()
  const view = useView()
  const licks = useLicks()
  /** The three best of the last plan, and what it could not have as it was asked for. */
  const alternatives = shallowRef<ChorusView[]>([])
  const concessions = shallowRef<string[]>([])

  /** What a new chorus is planned by: where the hand stands, licks of the library. */
  const fresh = (seed: number): ChorusPlan => ({
    position: view.position.value?.name,
    fromLicks: true,
    seed,
  })
  /** The licks that a plan is made from; which of them it may use the server knows. */
  const vocabulary = (of: ChorusPlan): Lick[] => (of.fromLicks ? licks.readable.map((l) => l.lick) : [])
  /** The best chorus of a plan around the blocks that are kept, with what is said of it. */
  async function best(plan: ChorusPlan, kept: Block[], signal?: AbortSignal) {
    const body = { chart: tune.chart!, hands: tune.hands, plan, licks: vocabulary(plan), kept }
    const got = await answer(client.POST('/api/compute/solo', { body, signal }))
    const first = got.best[0]
    if (!first) return undefined
    concessions.value = got.concessions.map((g) => g.text)
    alternatives.value = got.best
    const chorus = { plan, blocks: first.blocks }
    views.note(chorus, first)
    return chorus
  }
  function forget() {
    alternatives.value = []
    concessions.value = []
  }

  let planning: AbortController | undefined
  let pending: Partial<ChorusPlan> = {}
  /** Plans a chorus: the one looked at, its locked blocks kept, or one more. */
  async function planAgain(of: Partial<ChorusPlan> = {}, more = false, gesture?: string) {
    // A plan that is still being made gives way to the next, which has its changes, too.
    planning?.abort()
    const mine = new AbortController()
    planning = mine
    const wanted = more ? of : { ...pending, ...of }
    if (!more) pending = wanted
    const looked = at.value
    let index = looked
    await change(
      more ? 'one more chorus' : planLabel(of),
      async (now) => {
        const here = now.choruses[looked]
        index = more ? now.choruses.length : looked
        if (mine.signal.aborted) return undefined
        const plan: ChorusPlan = { ...(here?.plan ?? fresh(1)), ...wanted }
        const kept = more ? [] : (here?.blocks ?? []).filter((b) => b.locked)
        const made = await best(plan, kept, mine.signal).catch((error: unknown) => {
          if (!mine.signal.aborted) throw error
        })
        return made && !mine.signal.aborted ? withChorus(now, index, made) : undefined
      },
      gesture,
    )
    if (planning === mine) {
      planning = undefined
      pending = {}
    }
    if (more && index > 0) await query.set({ chorus: index + 1 })
  }
  /** Plans all choruses as one solo, their locked blocks kept: three of them where there is one. */
  async function planWhole(plan: ChorusPlan) {
    planning?.abort()
    const mine = new AbortController()
    planning = mine
    await change('plan the choruses as one', async (now) => {
      const choruses = Math.max(now.choruses.length, now.choruses.length > 1 ? 2 : wholeSolo)
      const kept = Array.from({ length: choruses }, (_, n) =>
        (now.choruses[n]?.blocks ?? []).filter((b) => b.locked),
      )
      const body = {
        ...{ chart: tune.chart!, hands: tune.hands, plan: { ...plan, seed: nextSeed(plan) } },
        ...{ licks: vocabulary(plan), choruses, kept },
      }
      const got = await answer(client.POST('/api/compute/solo/whole', { body, signal: mine.signal })).catch(
        (error: unknown) => {
          if (!mine.signal.aborted) throw error
        },
      )
      if (!got || mine.signal.aborted) return undefined
      alternatives.value = []
      concessions.value = got.concessions.map((g) => g.text)
      return { ...now, choruses: got.choruses }
    })
    if (planning === mine) planning = undefined
  }
  /** The seed after that of a plan, or of the plan that is being made. */
  const nextSeed = (plan: ChorusPlan) => (pending.seed ?? plan.seed ?? 0) + 1

  return { alternatives, concessions, fresh, vocabulary, best, forget, planAgain, planWhole, nextSeed }
}
