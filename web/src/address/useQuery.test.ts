import { mount } from '@vue/test-utils'
import { afterEach, expect, test } from 'vitest'
import { defineComponent, h } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { oneOf, whole } from './query'
import { changeAddress, followNavigation, useQuery } from './useQuery'

let router: Router
async function at(path: string) {
  router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/', component: { render: () => null } }],
  })
  await router.push(path)
  let query!: ReturnType<typeof use>
  const use = () => useQuery('change', { notes: whole(1, 64, 8), bench: oneOf(['moves', 'path', 'count']) })
  const wrapper = mount(
    defineComponent({
      setup() {
        query = use()
        return () => h('p')
      },
    }),
    { global: { plugins: [router] } },
  )
  return { query, wrapper }
}
afterEach(() => router.replace('/'))

test('values follow the address', async () => {
  const { query } = await at('/?change.notes=12')
  expect(query.notes.value).toBe(12)
  await router.push('/?change.notes=4&change.bench=path')
  expect([query.notes.value, query.bench.value]).toEqual([4, 'path'])
})

test('two changes in one task are both made', async () => {
  const { query } = await at('/?at=5')
  void query.set({ notes: 12 })
  await query.set({ bench: 'count' })
  expect(router.currentRoute.value.query).toEqual({
    at: '5',
    'change.notes': '12',
    'change.bench': 'count',
  })
})

test('the later of two changes of one value holds', async () => {
  const { query } = await at('/')
  void query.set({ notes: 12 })
  await query.set({ notes: 13 })
  expect(query.notes.value).toBe(13)
})

test('a value at its default leaves the address', async () => {
  const { query } = await at('/?change.notes=12')
  await query.set({ notes: 8 })
  expect(router.currentRoute.value.query).toEqual({})
})

test('values of other steps stay', async () => {
  const { query } = await at('/?licks.between=2&map.over=none')
  await query.set({ notes: 3 })
  expect(router.currentRoute.value.query).toEqual({
    'licks.between': '2',
    'map.over': 'none',
    'change.notes': '3',
  })
})

/** The next click, which is a task of its own. */
const nextTask = () => new Promise((resolve) => setTimeout(resolve))

/** A router with a page that is there once its code has come. */
function loading() {
  let come!: (page: object) => void
  let fail!: (error: Error) => void
  const code = new Promise<object>((resolve, reject) => {
    come = resolve
    fail = reject
  })
  router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: { render: () => null } },
      { path: '/map', component: { render: () => null } },
      { path: '/solo', component: () => code as never },
    ],
  })
  followNavigation(router)
  return { come: () => come({ render: () => null }), fail: () => fail(new Error('no code')) }
}

test('a change that is made while a step is loading does not keep it from coming', async () => {
  const page = loading()
  await router.push('/map?at=1')
  const going = router.push('/solo?at=1')
  await nextTask()
  const changed = changeAddress(router, { at: '960' })
  page.come()
  await Promise.all([going, changed])
  expect(router.currentRoute.value.fullPath).toBe('/solo?at=960')
})

test('a step that another overtakes is not waited for', async () => {
  loading()
  await router.push('/map')
  void router.push('/solo')
  await nextTask()
  await router.push('/')
  await changeAddress(router, { at: '960' })
  expect(router.currentRoute.value.fullPath).toBe('/?at=960')
})

test('a step whose code cannot be loaded leaves the address usable', async () => {
  const page = loading()
  await router.push('/map')
  const going = router.push('/solo').catch((error: Error) => error.message)
  await nextTask()
  const changed = changeAddress(router, { at: '960' })
  page.fail()
  expect(await going).toBe('no code')
  await changed
  expect(router.currentRoute.value.fullPath).toBe('/map?at=960')
})
