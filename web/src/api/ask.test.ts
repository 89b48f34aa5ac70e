import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { askAgainPauses, latestOnly, mostRemembered, remembered, useAnswer } from './ask'
import { Problem } from './client'
import { fault, faultIsOver } from './fault'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  faultIsOver()
})

/** A server whose answers come when the test lets them. */
function slowServer() {
  const open: { q: string; signal: AbortSignal; answer: (a: string) => void; fail: (e: unknown) => void }[] =
    []
  const ask = (q: string, signal: AbortSignal) =>
    new Promise<string>((answer, fail) => open.push({ q, signal, answer, fail }))
  return { open, ask, asked: () => open.map((o) => o.q) }
}
async function flush() {
  await nextTick()
  await vi.advanceTimersByTimeAsync(0)
}

describe('an answer that follows its question', () => {
  test('is asked for at once and shown when it comes', async () => {
    const { open, ask } = slowServer()
    const { answer, asking } = useAnswer(() => 'a', ask)
    expect(asking.value).toBe(true)
    open[0]!.answer('A')
    await flush()
    expect([answer.value, asking.value]).toEqual(['A', false])
  })

  test('an older answer that comes last is dropped', async () => {
    const { open, ask } = slowServer()
    const question = ref('a')
    const { answer } = useAnswer(question, ask)
    question.value = 'b'
    await flush()
    open[1]!.answer('B')
    await flush()
    open[0]!.answer('A')
    await flush()
    expect(answer.value).toBe('B')
  })

  test('a question that is overtaken is aborted', async () => {
    const { open, ask } = slowServer()
    const question = ref('a')
    useAnswer(question, ask)
    question.value = 'b'
    await flush()
    expect(open.map((o) => o.signal.aborted)).toEqual([true, false])
  })

  test('the same question in other objects is not asked again', async () => {
    const ask = vi.fn(async () => 'A')
    const question = ref({ tune: 1 })
    useAnswer(question, ask)
    await flush()
    question.value = { tune: 1 }
    await flush()
    expect(ask).toHaveBeenCalledTimes(1)
  })

  test('without a question there is no answer', async () => {
    const question = ref<string | undefined>('a')
    const { answer } = useAnswer(question, async (q) => q)
    await flush()
    question.value = undefined
    await flush()
    expect(answer.value).toBeUndefined()
  })

  test('an answer to a question that was taken back is dropped', async () => {
    const { open, ask } = slowServer()
    const question = ref<string | undefined>('a')
    const { answer } = useAnswer(question, ask)
    question.value = undefined
    await flush()
    open[0]!.answer('A')
    await flush()
    expect(answer.value).toBeUndefined()
  })

  test('a question asked again after another one is asked anew', async () => {
    const { ask, asked } = slowServer()
    const question = ref('a')
    useAnswer(question, ask)
    for (const q of ['b', 'a']) {
      question.value = q
      await flush()
    }
    expect(asked()).toEqual(['a', 'b', 'a'])
  })

  test('typed words wait for the next letter', async () => {
    const { open, ask, asked } = slowServer()
    const question = ref('')
    useAnswer(question, ask, { debounce: 200 })
    open[0]!.answer('all')
    await flush()
    for (const q of ['b', 'be', 'ben', 'bend']) {
      question.value = q
      await flush()
      await vi.advanceTimersByTimeAsync(100)
    }
    expect(asked()).toEqual([''])
    await vi.advanceTimersByTimeAsync(200)
    expect(asked()).toEqual(['', 'bend'])
  })

  test('nothing is asked for a component that is gone', async () => {
    const { open, ask } = slowServer()
    const scope = effectScope()
    scope.run(() => useAnswer(() => 'a', ask))
    scope.stop()
    expect(open[0]!.signal.aborted).toBe(true)
  })
})

describe('what is refused', () => {
  test('is said, and takes the answer before away', async () => {
    const question = ref('a')
    const { answer, refusal, problem } = useAnswer(question, async (q) => {
      if (q === 'bad') throw new Problem(422, 'no such bar')
      return q
    })
    await flush()
    question.value = 'bad'
    await flush()
    expect([answer.value, refusal.value, problem.value?.status]).toEqual([undefined, 'no such bar', 422])
    expect(fault.value).toBeUndefined()
  })

  test('is not asked again by itself', async () => {
    const ask = vi.fn(() => Promise.reject(new Problem(422, 'no')))
    useAnswer(() => 'a', ask)
    await vi.advanceTimersByTimeAsync(60_000)
    expect(ask).toHaveBeenCalledTimes(1)
  })

  test('is over with the next answer', async () => {
    const question = ref('bad')
    const { refusal, problem } = useAnswer(question, async (q) => {
      if (q === 'bad') throw new Problem(422, 'no')
      return q
    })
    await flush()
    question.value = 'good'
    await flush()
    expect([refusal.value, problem.value]).toEqual(['', undefined])
  })
})

describe('a fault of the server or the network', () => {
  test('is said on the page and the question asked again until it is answered', async () => {
    const ask = vi
      .fn<(q: string) => Promise<string>>()
      .mockRejectedValueOnce(new Problem(0, 'Undaris does not answer.'))
      .mockRejectedValueOnce(new Problem(500, 'something went wrong'))
      .mockResolvedValue('A')
    const { answer } = useAnswer(() => 'a', ask)
    await flush()
    expect(fault.value?.message).toBe('Undaris does not answer.')
    await vi.advanceTimersByTimeAsync(askAgainPauses[0]!)
    await vi.advanceTimersByTimeAsync(askAgainPauses[1]!)
    expect(answer.value).toBe('A')
    expect(fault.value).toBeUndefined()
  })

  test('a new question is asked at once all the same', async () => {
    const ask = vi.fn(async (q: string) => {
      if (q === 'a') throw new Problem(0, 'away')
      return q
    })
    const question = ref('a')
    const { answer } = useAnswer(question, ask)
    await flush()
    question.value = 'b'
    await flush()
    expect(answer.value).toBe('b')
    await vi.advanceTimersByTimeAsync(60_000)
    expect(ask).toHaveBeenCalledTimes(2)
  })

  test('faults and refusals are told apart', () => {
    expect([0, 500, 507].map((s) => new Problem(s, '').isFault)).toEqual([true, true, true])
    expect([404, 412, 422].map((s) => new Problem(s, '').isFault)).toEqual([false, false, false])
  })
})

describe('only the latest call', () => {
  test('returns its answer; the one before is aborted and returns nothing', async () => {
    const { open, ask } = slowServer()
    const latest = latestOnly()
    const first = latest((signal) => ask('a', signal))
    const second = latest((signal) => ask('b', signal))
    open[0]!.answer('A')
    open[1]!.answer('B')
    expect(await Promise.all([first, second])).toEqual([undefined, 'B'])
    expect(open[0]!.signal.aborted).toBe(true)
  })

  test('what an overtaken call met is nobody’s concern', async () => {
    const { open, ask } = slowServer()
    const latest = latestOnly()
    const first = latest((signal) => ask('a', signal))
    const second = latest((signal) => ask('b', signal))
    open[0]!.fail(new Error('away'))
    open[1]!.answer('B')
    expect(await first).toBeUndefined()
    expect(await second).toBe('B')
  })

  test('what the latest met is thrown', async () => {
    const latest = latestOnly()
    await expect(latest(() => Promise.reject(new Error('away')))).rejects.toThrow('away')
  })
})

describe('answers that are remembered', () => {
  const signal = new AbortController().signal

  test('are asked for once', async () => {
    const ask = vi.fn(async (q: { at: number }) => ({ answers: q.at }))
    const known = remembered(ask)
    expect(await known({ at: 1 }, signal)).toEqual({ answers: 1 })
    expect(await known({ at: 2 }, signal)).toEqual({ answers: 2 })
    expect(await known({ at: 1 }, signal)).toEqual({ answers: 1 })
    expect(ask).toHaveBeenCalledTimes(2)
  })

  test('what was refused is asked again', async () => {
    const ask = vi.fn().mockRejectedValueOnce(new Problem(500, 'away')).mockResolvedValueOnce('here')
    const known = remembered(ask)
    await expect(known('a', signal)).rejects.toThrow('away')
    expect(await known('a', signal)).toBe('here')
  })

  test('the one that was not asked for longest is forgotten', async () => {
    const ask = vi.fn(async (q: number) => q)
    const known = remembered(ask)
    for (let q = 0; q < mostRemembered; q++) await known(q, signal)
    await known(0, signal)
    await known(mostRemembered, signal)
    await known(0, signal)
    expect(ask).toHaveBeenCalledTimes(mostRemembered + 1)
    await known(1, signal)
    expect(ask).toHaveBeenLastCalledWith(1, signal)
  })
})
