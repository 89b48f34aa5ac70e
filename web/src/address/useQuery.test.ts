import { mount } from '@vue/test-utils'
import { afterEach, expect, test } from 'vitest'
import { defineComponent, h } from 'vue'
import { createMemoryHistory, createRouter, type Router } from 'vue-router'
import { oneOf, whole } from './query'
import { useQuery } from './useQuery'

let router: Router
async function at(path: string) {
  router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/', component: { render: () => null } }],
  })
  await router.push(path)
  let query!: ReturnType<typeof use>
  const use = () => useQuery('change', { notes: whole(1, 64, 8), bench: oneOf(['ways', 'path', 'count']) })
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
