import { beforeEach, describe, expect, test, vi } from 'vitest'
import type { PassRequest } from '../api/client'
import { passSource, type Bars } from './passes'

const asked: PassRequest[] = []
/** A server that goes on with the next pass, three passes in all. */
vi.mock('../api/client', () => ({
  client: { POST: (_: string, { body }: { body: PassRequest }) => body },
  answer: (body: PassRequest) => {
    asked.push(body)
    const after = body.after
    const place = body.at ?? (after ? { ...after, pass: after.pass + 1, chorus: after.chorus + 1 } : start)
    return Promise.resolve({
      ...{ finished: place.pass > 2, place, bars: 12, chart: { key: { tonic: place.tonic } } },
      performance: { countIn: 0, end: 0, beats: [], chords: [], notes: [] },
    })
  },
}))
const start = { segment: 0, time: 0, pass: 0, chorus: 0, tempo: 100, tonic: 'C' }

let tonic = 'C'
let tempo = 100
let loop: Bars | 'all' | undefined
const source = (from?: number) =>
  passSource(
    {
      request: () => ({ chart: { key: { tonic }, tempo } }) as unknown as PassRequest,
      loop: () => loop,
      line: async (chorus) => ({ meter: '4/4', events: [], start: chorus }),
    },
    from,
  )
beforeEach(() => {
  asked.length = 0
  loop = undefined
  tonic = 'C'
  tempo = 100
})
const last = () => asked[asked.length - 1]!

describe('the tune', () => {
  test('is asked for pass after pass, until it is over', async () => {
    const s = source()
    let chunk = await s.first()
    let count = 0
    for (; chunk; count++) chunk = await s.after(chunk, false)
    expect(count).toBe(3)
    expect(asked.map((a) => a.after?.pass)).toEqual([undefined, 0, 1, 2])
  })

  test('has the line of its chorus', async () => {
    const s = source()
    const first = await s.first()
    await s.after(first!, false)
    expect(asked.map((a) => a.line?.start)).toEqual([0, 1])
  })

  test('begins at a bar, and then goes on with the whole', async () => {
    const s = source(5)
    const first = await s.first()
    expect(last().loop).toEqual({ from: 5, to: 12 })
    await s.after(first!, false)
    expect(last()).toMatchObject({ after: { pass: 0 } })
    expect(last().loop).toBeUndefined()
  })

  test('skips to the next segment', async () => {
    const s = source()
    const first = await s.first()
    await s.after(first!, true)
    expect(last()).toMatchObject({ after: { pass: 0 }, skip: true })
  })
})

describe('a loop', () => {
  test('plays its bars again, a chorus later each time', async () => {
    loop = { from: 3, to: 4 }
    const s = source()
    let chunk = await s.first()
    for (const chorus of [1, 2]) {
      chunk = await s.after(chunk!, false)
      expect(last()).toMatchObject({ at: { pass: 0, chorus }, loop: { from: 3, to: 4 } })
    }
  })

  test('that is taken away goes on after its bars', async () => {
    loop = { from: 3, to: 4 }
    const s = source()
    const first = await s.first()
    loop = undefined
    const rest = await s.after(first!, false)
    expect(last()).toMatchObject({ at: { pass: 0 }, loop: { from: 5, to: 12 } })
    await s.after(rest!, false)
    expect(last()).toMatchObject({ after: { pass: 0 } })
  })

  test('without bars plays the same pass again', async () => {
    loop = 'all'
    const s = source()
    await s.after((await s.first())!, false)
    expect(last()).toMatchObject({ at: { pass: 0, chorus: 1 } })
    expect(last().loop).toBeUndefined()
  })
})

describe('an ending', () => {
  test('of the pass that sounds is the last', async () => {
    const s = source()
    const first = await s.first()
    const ended = await s.refreshed(first!, true)
    expect(last()).toMatchObject({ at: { pass: 0 }, ending: true })
    expect(await s.after(ended!, false)).toBeUndefined()
  })

  test('of the next one is asked for with it', async () => {
    const s = source()
    const first = await s.first()
    s.endNext()
    const next = await s.after(first!, false)
    expect(last()).toMatchObject({ after: { pass: 0 }, ending: true })
    expect(await s.after(next!, false)).toBeUndefined()
  })
})

test('an ending that came too late is asked for with the next pass', async () => {
  const s = source()
  const first = await s.first()
  await s.refreshed(first!, true)
  s.endNext()
  expect(await s.after(first!, false)).toBeDefined()
  expect(last()).toMatchObject({ after: { pass: 0 }, ending: true })
})

test('another key or tempo of the tune is taken up where it sounds', async () => {
  const s = source()
  const first = await s.first()
  tonic = 'D'
  tempo = 120
  await s.refreshed(first!, false)
  expect(last().at).toMatchObject({ tonic: 'D', tempo: 120 })
})

test('another key is taken up after a chunk that was played on in the old one', async () => {
  const s = source()
  const first = await s.first()
  tonic = 'D'
  // This answer comes too late, and is not played.
  await s.refreshed(first!, false)
  await s.after(first!, false)
  expect(last().after).toMatchObject({ tonic: 'D' })
})

test('a key or tempo that a segment has chosen stays', async () => {
  const s = source()
  const first = await s.first()
  first!.pass!.place = { ...first!.pass!.place, tonic: 'F', tempo: 80 }
  tonic = 'D'
  tempo = 120
  await s.refreshed(first!, false)
  expect(last().at).toMatchObject({ tonic: 'F', tempo: 80 })
})
