import { beforeEach, expect, test, vi } from 'vitest'
import { computed } from 'vue'
import type { ChorusPlan, Solo } from '../../api/client'
import { usePlanning, withChorus } from './planning'

const { asked } = vi.hoisted(() => ({
  asked: [] as {
    plan: ChorusPlan
    kept: { name: string }[]
    aborted: () => boolean
    answer: (name: string) => void
  }[],
}))
vi.mock('../../api/client', () => ({
  answer: (promise: Promise<unknown>) => promise,
  client: {
    POST: (_: string, { body, signal }: { body: never; signal: AbortSignal }) =>
      new Promise((resolve, reject) => {
        signal.addEventListener('abort', () => reject(new DOMException('overtaken', 'AbortError')))
        const answer = (name: string) =>
          resolve({ best: [{ blocks: [{ name }] }], concessions: [{ text: `${name} gave way` }] })
        asked.push({ ...(body as object), aborted: () => signal.aborted, answer } as never)
      }),
  },
}))
vi.mock('../../address/view', () => ({ useView: () => ({ position: { value: { name: 'E' } } }) }))
vi.mock('../../document/tune', () => ({ useTune: () => ({ chart: {}, hands: {} }) }))
vi.mock('../../document/licks', () => ({
  useLicks: () => ({ readable: [{ lick: { name: 'a', tags: ['box'] } }, { lick: { name: 'b' } }] }),
}))

let solo: Solo
let made: string[]
const query = { set: vi.fn() }
function planning() {
  return usePlanning(
    computed(() => 0),
    query as never,
    { note: vi.fn() } as never,
    // As a document does: one change after the other, each on what the last has left.
    async (label, work) => {
      const next = await work(solo)
      if (!next) return
      solo = next
      made.push(label)
    },
  )
}
const names = () => solo.choruses.map((c) => c.blocks.map((b) => b.name).join())
beforeEach(() => {
  asked.length = 0
  made = []
  query.set.mockReset()
  solo = {
    name: 'one',
    choruses: [
      { plan: { seed: 1, fromLicks: true }, blocks: [{ name: 'locked', locked: true }, { name: 'free' }] },
    ],
  } as unknown as Solo
})

test('what is locked is kept, and the plan is that of the chorus with what was changed', async () => {
  const { planAgain, concessions } = planning()
  const done = planAgain({ seed: 5 })
  expect(asked[0]!.plan).toEqual({ seed: 5, fromLicks: true })
  expect(asked[0]!.kept.map((b) => b.name)).toEqual(['locked'])
  asked[0]!.answer('new')
  await done
  expect(names()).toEqual(['new'])
  expect(concessions.value).toEqual(['new gave way'])
})

test('a plan that is overtaken is aborted, and the next has its changes, too', async () => {
  const { planAgain } = planning()
  const first = planAgain({ blend: [0.2] }, false, 'blend')
  const second = planAgain({ seed: 9 })
  expect(asked[0]!.aborted()).toBe(true)
  expect(asked[1]!.plan).toEqual({ seed: 9, fromLicks: true, blend: [0.2] })
  asked[1]!.answer('second')
  await Promise.all([first, second])
  expect(names()).toEqual(['second'])
  expect(made).toHaveLength(1)
})

test('after a plan is made its changes are not taken along', async () => {
  const { planAgain } = planning()
  const first = planAgain({ blend: [0.2] })
  asked[0]!.answer('first')
  await first
  solo = { ...solo, choruses: [{ ...solo.choruses[0]!, plan: { seed: 1 } }] }
  const second = planAgain({ seed: 2 })
  expect(asked[1]!.plan).toEqual({ seed: 2 })
  asked[1]!.answer('second')
  await second
})

test('one more chorus keeps nothing of the others and is gone to', async () => {
  const { planAgain } = planning()
  const done = planAgain({}, true)
  expect(asked[0]!.kept).toEqual([])
  asked[0]!.answer('more')
  await done
  expect(names()).toEqual(['locked,free', 'more'])
  expect(query.set).toHaveBeenCalledWith({ chorus: 2 })
})

test('the next seed follows the plan that is being made', () => {
  const { planAgain, nextSeed } = planning()
  expect(nextSeed({ seed: 4 })).toBe(5)
  void planAgain({ seed: 7 })
  expect(nextSeed({ seed: 4 })).toBe(8)
})

test('a plan from licks is given those of the library', () => {
  const { vocabulary } = planning()
  const of = (plan: ChorusPlan) => vocabulary(plan).map((l) => l.name)
  expect(of({ fromLicks: true, seed: 1 })).toEqual(['a', 'b'])
  expect(of({ fromLicks: false, seed: 1 })).toEqual([])
})

test('a chorus is changed among the others', () => {
  const changed = withChorus(solo, 1, { plan: { seed: 3 }, blocks: [] })
  expect(changed.choruses.map((c) => c.plan.seed)).toEqual([1, 3])
  expect(solo.choruses).toHaveLength(1)
})
