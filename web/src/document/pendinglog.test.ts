import { expect, test } from 'vitest'
import { Problem } from '../api/client'
import { PendingLog, type NamedEntry } from './pendinglog'

const entry = (uid: string) =>
  ({ uid, began: '2026-03-01T19:00:00Z', seconds: 60, kind: 'free' }) as NamedEntry

function pending(answers: (Problem | undefined)[]) {
  const kept = new Map<string, string>()
  const sent: string[] = []
  const store = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, text: string) => void kept.set(key, text),
  }
  const log = new PendingLog(store, (one) => {
    sent.push(one.uid)
    const problem = answers.shift()
    return problem ? Promise.reject(problem) : Promise.resolve()
  })
  return { log, sent, kept }
}
const waiting = (log: PendingLog) => log.waiting.map((one) => one.uid)

test('what is noted while the program is away waits, and is sent once it is there', async () => {
  const { log, sent } = pending([new Problem(0, 'away'), undefined, undefined])
  log.add(entry('a'))
  expect((await log.flush())?.message).toBe('away')
  log.add(entry('b'))
  log.add(entry('b'))
  expect(waiting(log)).toEqual(['a', 'b'])
  expect(await log.flush()).toBeUndefined()
  expect([waiting(log), sent]).toEqual([[], ['a', 'a', 'b']])
})

test('what is refused is reported, and the rest is sent', async () => {
  const { log, sent } = pending([new Problem(422, 'a tempo is 0 to 400'), undefined])
  log.add(entry('a'))
  log.add(entry('b'))
  expect((await log.flush())?.message).toBe('a tempo is 0 to 400')
  expect([waiting(log), sent]).toEqual([[], ['a', 'b']])
})

test('what cannot be read in the browser is no fault', () => {
  const { log, kept } = pending([])
  kept.set('undaris practice log', '{')
  expect(waiting(log)).toEqual([])
})

test('sent from two places at once, an entry goes out once', async () => {
  const { log, sent } = pending([])
  log.add(entry('a'))
  const first = log.flush()
  log.add(entry('b'))
  await Promise.all([first, log.flush()])
  expect([waiting(log), sent]).toEqual([[], ['a', 'b']])
})
