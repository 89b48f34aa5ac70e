import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { Problem } from '../api/client'
import { retryPauses, saveDelay, Saver, type Write } from './saver'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

/** A server that answers each save as it is told to, in order, and else accepts it. */
function server(...answers: (Error | number | Promise<number>)[]) {
  const writes: Write<string>[] = []
  const saved: string[] = []
  const saver = new Saver<string>(
    async (write) => {
      writes.push(write)
      const next = answers.shift()
      if (next instanceof Error) throw next
      return (await next) ?? write.version + 1
    },
    (body) => void saved.push(body),
    1,
  )
  return { saver, writes, saved, bodies: () => writes.map((w) => w.body) }
}
const offline = () => new Problem(0, 'Undaris does not answer.')

describe('saving behind the edits', () => {
  test('a save waits for the next edit', async () => {
    const { saver, bodies } = server()
    saver.save('t')
    await vi.advanceTimersByTimeAsync(saveDelay - 1)
    saver.save('ti')
    await vi.advanceTimersByTimeAsync(saveDelay - 1)
    expect(bodies()).toEqual([])
    await vi.advanceTimersByTimeAsync(1)
    expect(bodies()).toEqual(['ti'])
  })

  test('it says how it stands', async () => {
    const { saver, saved } = server()
    expect(saver.state.value).toBe('saved')
    saver.save('a')
    expect(saver.state.value).toBe('saving')
    expect(saver.unsaved.value).toBe(true)
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(saver.state.value).toBe('saved')
    expect(saved).toEqual(['a'])
  })

  test('every save names the version that the one before has made', async () => {
    const { saver, writes } = server(7)
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay)
    saver.save('b')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(writes.map((w) => w.version)).toEqual([1, 7])
  })

  test('one save at a time: an edit meanwhile is saved behind it', async () => {
    let finish: (version: number) => void = () => {}
    const { saver, bodies } = server(new Promise((done) => (finish = done)))
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay)
    saver.save('b')
    await vi.advanceTimersByTimeAsync(saveDelay * 3)
    expect(bodies()).toEqual(['a'])
    finish(2)
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(bodies()).toEqual(['a', 'b'])
    expect(saver.state.value).toBe('saved')
  })

  test('flush saves at once', async () => {
    const { saver, bodies } = server()
    saver.save('a')
    expect(await saver.flush()).toBe(true)
    expect(bodies()).toEqual(['a'])
  })

  test('flush with nothing to save asks nothing', async () => {
    const { saver, bodies } = server()
    expect(await saver.flush()).toBe(true)
    expect(bodies()).toEqual([])
  })

  test('flush waits for what was edited while it saved', async () => {
    let finish: (version: number) => void = () => {}
    const { saver, bodies } = server(new Promise((done) => (finish = done)))
    saver.save('a')
    const flushed = saver.flush()
    saver.save('b')
    finish(2)
    expect(await flushed).toBe(true)
    expect(bodies()).toEqual(['a', 'b'])
  })
})

describe('a save that fails', () => {
  test('is tried again with growing pauses, and says why', async () => {
    const { saver, bodies } = server(offline(), offline(), offline())
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(saver.state.value).toBe('failed')
    expect(saver.reason.value).toBe('Undaris does not answer.')
    await vi.advanceTimersByTimeAsync(retryPauses[0]!)
    expect(bodies()).toHaveLength(2)
    await vi.advanceTimersByTimeAsync(retryPauses[1]! - 1)
    expect(bodies()).toHaveLength(2)
    await vi.advanceTimersByTimeAsync(1)
    expect(bodies()).toHaveLength(3)
    await vi.advanceTimersByTimeAsync(retryPauses[2]!)
    expect(saver.state.value).toBe('saved')
    expect(saver.reason.value).toBe('')
  })

  test('goes on being tried at the longest pause', async () => {
    const { saver, bodies } = server(...Array.from({ length: 12 }, offline))
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay)
    for (const pause of retryPauses) await vi.advanceTimersByTimeAsync(pause)
    const before = bodies().length
    await vi.advanceTimersByTimeAsync(retryPauses.at(-1)!)
    expect(bodies().length).toBe(before + 1)
  })

  test('is tried with what was edited since', async () => {
    const { saver, bodies } = server(offline())
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay)
    saver.save('b')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(bodies()).toEqual(['a', 'b'])
    expect(saver.state.value).toBe('saved')
  })

  test('a fault of the server is tried again as well', async () => {
    const { saver, bodies } = server(new Problem(507, 'the disk is full'))
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay + retryPauses[0]!)
    expect(bodies()).toEqual(['a', 'a'])
  })

  test('what is refused is not tried again by itself', async () => {
    const { saver, bodies } = server(new Problem(422, 'a title has 1 to 120 characters'))
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay + 120_000)
    expect(bodies()).toEqual(['a'])
    expect(saver.state.value).toBe('failed')
  })

  test('the player may try again at once', async () => {
    const { saver, bodies } = server(new Problem(422, 'no'))
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(await saver.retry()).toBe(true)
    expect(bodies()).toEqual(['a', 'a'])
  })

  test('flush says that it is not saved', async () => {
    const { saver } = server(offline())
    saver.save('a')
    expect(await saver.flush()).toBe(false)
  })

  test('an error that is no problem counts as a fault', async () => {
    const { saver, bodies } = server(new Error('odd'))
    saver.save('a')
    await vi.advanceTimersByTimeAsync(saveDelay + retryPauses[0]!)
    expect(bodies()).toHaveLength(2)
  })
})

describe('saved elsewhere in between', () => {
  const stale = () => new Problem(412, 'saved elsewhere')

  test('nothing more is written until the player has chosen', async () => {
    const { saver, bodies } = server(stale())
    saver.save('mine')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(saver.state.value).toBe('conflict')
    saver.save('mine, further')
    await vi.advanceTimersByTimeAsync(120_000)
    expect(bodies()).toEqual(['mine'])
  })

  test('after the choice it goes on from the other version', async () => {
    const { saver, writes } = server(stale())
    saver.save('mine')
    await vi.advanceTimersByTimeAsync(saveDelay)
    saver.resolve(9)
    expect(saver.state.value).toBe('saved')
    saver.save('mine', true)
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(writes.at(-1)).toEqual({ body: 'mine', version: 9, keepBefore: true })
  })

  test('what was deleted elsewhere stops the saving as well', async () => {
    const { saver, bodies } = server(new Problem(404, 'there is none'))
    saver.save('mine')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(saver.state.value).toBe('gone')
    saver.save('more')
    await vi.advanceTimersByTimeAsync(120_000)
    expect(bodies()).toHaveLength(1)
  })

  test('keeping the version before is asked for once', async () => {
    const { saver, writes } = server()
    saver.save('a', true)
    await vi.advanceTimersByTimeAsync(saveDelay)
    saver.save('b')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(writes.map((w) => w.keepBefore)).toEqual([true, false])
  })

  test('and again where the save that asked for it failed', async () => {
    const { saver, writes } = server(offline())
    saver.save('a', true)
    await vi.advanceTimersByTimeAsync(saveDelay)
    saver.save('b')
    await vi.advanceTimersByTimeAsync(saveDelay)
    expect(writes.map((w) => w.keepBefore)).toEqual([true, true])
  })
})
