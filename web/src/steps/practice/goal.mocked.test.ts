import { flushPromises, mount } from '@vue/test-utils'
import { expect, test, vi } from 'vitest'
import GoalPanel from './GoalPanel.vue'

/** A server with settings of practice that another window has changed once since they were read. */
const server = { version: 1, settings: { minutes: 20 } as Record<string, unknown>, away: true }

vi.mock('../../api/client', async (original) => {
  const real = await original<typeof import('../../api/client')>()
  const given = (status: number, body: unknown) =>
    Promise.resolve({
      ...(status < 300 ? { data: body } : { error: body }),
      response: new Response(JSON.stringify(body), { status }),
    })
  return {
    ...real,
    client: {
      GET: (path: string) =>
        given(200, path.includes('settings') ? { version: server.version, settings: server.settings } : []),
      PUT: (_: string, { body }: { body: { version: number; settings: Record<string, unknown> } }) => {
        if (server.away) {
          server.away = false
          server.version = 2
          server.settings = { minutes: 45 }
        }
        if (body.version !== server.version)
          return given(412, { status: 412, detail: 'saved elsewhere', errors: [] })
        server.version++
        server.settings = body.settings
        return given(200, { version: server.version, settings: server.settings })
      },
    },
  }
})

test('what is set here is set over what another window has set, and takes nothing of that back', async () => {
  const panel = mount(GoalPanel)
  await flushPromises()
  const cards = panel.find('input[type="number"]')
  await cards.setValue('7')
  await cards.trigger('change')
  await flushPromises()
  expect(panel.find('[role="alert"]').exists()).toBe(false)
  expect(server.settings).toMatchObject({ minutes: 45 })
  expect(Object.values(server.settings)).toContain(7)
})
