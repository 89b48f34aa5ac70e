import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { fault, faultIsOver } from '../api/fault'
import { loadMissingSteps } from './missing'

const page = { component: { render: () => null } }
function router() {
  const made = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', ...page },
      { path: '/solo', component: () => Promise.reject(new Error('no code')) },
    ],
  })
  const load = vi.fn()
  loadMissingSteps(made, load)
  return { made, load }
}
const answers = (ok: boolean) =>
  vi.stubGlobal('fetch', () => (ok ? Promise.resolve(new Response('{}')) : Promise.reject(new Error('away'))))
const go = (made: ReturnType<typeof router>['made'], path: string) => made.push(path).catch(() => {})
beforeEach(faultIsOver)
afterEach(() => vi.unstubAllGlobals())

test('while the program is away it is said', async () => {
  answers(false)
  const { made, load } = router()
  await go(made, '/')
  await go(made, '/solo')
  await vi.waitFor(() => expect(fault.value?.message).toContain('does not answer'))
  expect(load).not.toHaveBeenCalled()
})

test('once it answers the page is loaded anew at the step', async () => {
  answers(true)
  const { made, load } = router()
  await go(made, '/')
  await go(made, '/solo?at=960')
  await vi.waitFor(() => expect(load).toHaveBeenCalledWith('/solo?at=960'))
  expect(fault.value).toBeUndefined()
})

test('a page that cannot even begin is not loaded for ever', async () => {
  answers(true)
  const { made, load } = router()
  await go(made, '/solo')
  await vi.waitFor(() => expect(fault.value?.message).toContain('Load the page anew'))
  expect(load).not.toHaveBeenCalled()
})
