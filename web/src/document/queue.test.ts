import { expect, test } from 'vitest'
import { Queue } from './queue'

const later = (value: string, ms: number, log: string[]) => () =>
  new Promise<string>((done) =>
    setTimeout(() => {
      log.push(value)
      done(value)
    }, ms),
  )

test('work is done in the order it was added, however long each takes', async () => {
  const queue = new Queue()
  const log: string[] = []
  const all = [
    queue.add(later('slow', 20, log)),
    queue.add(later('quick', 1, log)),
    queue.add(() => log.push('at once')),
  ]
  await Promise.all(all)
  expect(log).toEqual(['slow', 'quick', 'at once'])
})

test('each piece returns its own result', async () => {
  const queue = new Queue()
  expect(await Promise.all([queue.add(() => 1), queue.add(async () => 2)])).toEqual([1, 2])
})

test('a piece that fails says so and does not stop those behind it', async () => {
  const queue = new Queue()
  const failing = queue.add(() => Promise.reject(new Error('no')))
  const behind = queue.add(() => 'done')
  await expect(failing).rejects.toThrow('no')
  expect(await behind).toBe('done')
})

test('it is busy until the last piece is done', async () => {
  const queue = new Queue()
  expect(queue.busy).toBe(false)
  const piece = queue.add(later('one', 5, []))
  expect(queue.busy).toBe(true)
  await piece
  await queue.idle()
  expect(queue.busy).toBe(false)
})

test('idle waits for failing work without failing itself', async () => {
  const queue = new Queue()
  queue.add(() => Promise.reject(new Error('no'))).catch(() => {})
  await expect(queue.idle()).resolves.toBeUndefined()
})

test('work that is added by work is done behind what was there', async () => {
  const queue = new Queue()
  const log: string[] = []
  let inner: Promise<unknown> = Promise.resolve()
  const outer = queue.add(() => {
    inner = queue.add(() => log.push('inner'))
    log.push('outer')
  })
  const second = queue.add(() => log.push('second'))
  await Promise.all([outer, second])
  await inner
  expect(log).toEqual(['outer', 'second', 'inner'])
})
