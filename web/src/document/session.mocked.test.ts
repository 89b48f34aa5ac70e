import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { SessionBlock } from '../api/client'
import { useSession } from './session'

/** A server with one session: what is put must name its version. */
const server = { version: 0, session: {} as Record<string, unknown>, log: [] as Record<string, unknown>[] }
const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })

vi.mock('../api/client', async (original) => {
  const real = await original<typeof import('../api/client')>()
  const kept = () => ({ id: 1, version: server.version, saved: '', session: server.session })
  const given = (status: number, body: unknown) =>
    Promise.resolve({
      ...(status < 300 ? { data: body } : { error: body }),
      response: json(status, body),
    })
  return {
    ...real,
    client: {
      GET: (path: string) => given(200, path.includes('{id}') ? kept() : []),
      POST: (path: string, { body }: { body: Record<string, unknown> }) => {
        if (path.includes('log')) {
          server.log.push(body)
          return given(201, body)
        }
        server.version = 1
        server.session = body
        return given(201, kept())
      },
      PUT: (_: string, { body }: { body: { version: number; session: Record<string, unknown> } }) => {
        if (body.version !== server.version)
          return given(412, { detail: 'saved elsewhere', status: 412, errors: [] })
        server.version++
        server.session = body.session
        return given(200, kept())
      },
    },
  }
})

const blocks = [
  { kind: 'warm-up', minutes: 2, title: 'Warm up' },
  { kind: 'cards', minutes: 3, title: 'Due today' },
] as SessionBlock[]

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  server.log = []
  setActivePinia(createPinia())
})
afterEach(() => vi.useRealTimers())

test('a block that is gone on from is logged with its time, and pressed twice it ends once', async () => {
  const session = useSession()
  await session.begin(5, blocks)
  await vi.advanceTimersByTimeAsync(45_000)
  expect(Math.round(session.seconds)).toBe(45)
  const first = session.next()
  await session.next()
  await first
  expect([session.at, server.log.length]).toEqual([1, 1])
  expect(server.log[0]).toMatchObject({ kind: 'warm-up', seconds: 45 })
  await vi.advanceTimersByTimeAsync(10_000)
  await session.next({ right: 3, of: 4 })
  expect([session.over, server.session.at]).toEqual([true, 2])
  expect(server.log[1]).toMatchObject({ kind: 'cards', seconds: 10, right: 3, of: 4 })
})

test('what was practised is kept while a block is on, and a pause does not count', async () => {
  const session = useSession()
  await session.begin(5, blocks)
  await vi.advanceTimersByTimeAsync(40_000)
  expect((server.session.blocks as SessionBlock[])[0]?.seconds).toBeGreaterThanOrEqual(30)
  session.pause()
  await vi.advanceTimersByTimeAsync(60_000)
  expect(Math.round(session.seconds)).toBe(40)
  session.run()
  await vi.advanceTimersByTimeAsync(5_000)
  expect(Math.round(session.seconds)).toBe(45)
})

test('another window that has gone on is not overwritten', async () => {
  const session = useSession()
  await session.begin(5, blocks)
  server.version = 7
  server.session = { ...server.session, at: 1 }
  await session.next()
  expect([session.at, server.version]).toEqual([1, 7])
  expect(session.problem).toContain('Another window')
  expect(server.log).toEqual([])
})
