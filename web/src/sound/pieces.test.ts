import { describe, expect, test, vi } from 'vitest'
import { Problem, type HeardSoFar } from '../api/client'
import { pcm16, PieceSender, sendFile, sendSpooled } from './pieces'
import type { Spool, SpooledPiece } from './spool'

const answer = (have: number): HeardSoFar => ({ have, strokes: [], level: -60, clipped: 0 })

test('samples become whole numbers of 16 bits, and no number is silence', () => {
  expect([...pcm16(new Float32Array([0, 1, -1, 0.5, NaN, 7]))]).toEqual([
    ...[0, 0, 255, 127, 1, 128, 0, 64, 0, 0, 255, 127],
  ])
})

/** A server that takes a recording in, as ours does: what does not follow is a gap, what is too large is refused. */
function server(most = 4 << 20) {
  const limit = 1 << 20
  const bytes = new Uint8Array(most)
  let have = 0
  let largest = 0
  /** What happens to a piece: it arrives, the network is away, or the answer is lost; more by a test. */
  const weather = { now: (): 'fine' | 'away' | 'answer lost' | Problem => 'fine' }
  async function send(_: string, at: number, piece: Blob): Promise<HeardSoFar> {
    const now = weather.now()
    if (now === 'away') throw new Problem(0, 'gone')
    if (now instanceof Problem) throw now
    largest = Math.max(largest, piece.size)
    if (piece.size > limit) throw new Problem(413, 'too large')
    if (at !== have)
      throw new Problem(409, 'a gap', [{ field: 'query.at', message: '', value: String(have) }])
    bytes.set(new Uint8Array(await piece.arrayBuffer()), at)
    have += piece.size
    if (now === 'answer lost') throw new Problem(0, 'gone')
    return answer(have)
  }
  return { weather, send, get: () => bytes.subarray(0, have), largest: () => largest }
}

/** A spool in memory. */
function memorySpool() {
  const all = new Map<string, SpooledPiece>()
  const spool: Spool = {
    put: async (piece) => void all.set(`${piece.id} ${String(piece.at).padStart(12, '0')}`, piece),
    remove: async (id, at) => void all.delete(`${id} ${String(at).padStart(12, '0')}`),
    async left() {
      const left = new Map<string, SpooledPiece[]>()
      for (const [, piece] of [...all].toSorted(([a], [b]) => (a < b ? -1 : 1)))
        left.set(piece.id, [...(left.get(piece.id) ?? []), piece])
      return left
    },
  }
  return { all, spool }
}

const nothing = () => {}
const counted = (length: number, from: number) => Uint8Array.from({ length }, (_, n) => (from + n) % 251)

describe('pieces', () => {
  test('arrive in order, one at a time', async () => {
    const sent: number[][] = []
    const send = async (_: string, at: number, piece: Blob) => {
      sent.push([at, piece.size])
      await Promise.resolve()
      return answer(at + piece.size)
    }
    const sender = new PieceSender('a', nothing, nothing, { send })
    sender.add(new Uint8Array(4))
    sender.add(new Uint8Array(6))
    sender.add(new Uint8Array(2))
    await sender.settled()
    expect(sent).toEqual([
      [0, 4],
      [4, 8],
    ])
  })

  test('that did not arrive are sent again, and it is said while they do not', async () => {
    const to = server()
    let calls = 0
    to.weather.now = () => (++calls <= 2 ? 'away' : 'fine')
    const said: (number | undefined)[] = []
    const sender = new PieceSender('a', nothing, (problem) => said.push(problem?.status), {
      ...{ send: to.send, pause: async () => {} },
    })
    sender.add(new Uint8Array(4))
    await sender.settled()
    expect(said).toEqual([0, 0, undefined])
    expect(to.get()).toHaveLength(4)
  })

  test('of which the answer was lost go on from what has come', async () => {
    const to = server()
    let calls = 0
    to.weather.now = () => (++calls === 1 ? 'answer lost' : 'fine')
    const sender = new PieceSender('a', nothing, nothing, { send: to.send, pause: async () => {} })
    sender.add(counted(10, 0))
    await sender.settled()
    expect([...to.get()]).toEqual([...counted(10, 0)])
  })

  test('wait while the disk is full, and arrive when it is not', async () => {
    const to = server()
    let calls = 0
    to.weather.now = () => (++calls < 5 ? new Problem(507, 'full') : 'fine')
    const sender = new PieceSender('a', nothing, nothing, { send: to.send, pause: async () => {} })
    sender.add(counted(10, 0))
    await sender.settled()
    expect(to.get()).toHaveLength(10)
    expect(sender.refused).toBe(false)
  })

  test('that are refused for good are not sent again, and what comes after is not taken', async () => {
    let calls = 0
    const said: string[] = []
    const send = async () => {
      calls++
      throw new Problem(422, 'an hour at most')
    }
    const sender = new PieceSender('a', nothing, (p) => said.push(p?.message ?? ''), { send })
    sender.add(new Uint8Array(2))
    await sender.settled()
    sender.add(new Uint8Array(2))
    await sender.settled()
    expect(said).toEqual(['an hour at most'])
    expect(calls).toBe(1)
    expect(sender.refused).toBe(true)
  })

  test('of ten minutes without a server are all there afterwards, none too large, and none is left in the spool', async () => {
    const to = server(64 << 20)
    const { all, spool } = memorySpool()
    let minutes = 0
    let wake = () => {}
    const sender = new PieceSender('a', nothing, nothing, {
      send: to.send,
      spool,
      // A pause lasts until the test says that it is over.
      pause: () => new Promise<void>((done) => (wake = done)),
    })
    const second = 16_000 // 8,000 samples of 16 bits; a minute is larger than a piece may be
    sender.add(counted(second, 0))
    await sender.settled()
    to.weather.now = () => 'away'
    let from = second
    for (; minutes < 10; minutes++) {
      sender.add(counted(60 * second, from))
      from += 60 * second
      await new Promise((done) => setTimeout(done))
      wake()
    }
    await vi.waitFor(() => expect(all.size).toBeGreaterThan(0))
    expect(to.get()).toHaveLength(second)
    to.weather.now = () => 'fine'
    const timer = setInterval(() => wake(), 1)
    await sender.settled()
    clearInterval(timer)
    expect(to.get()).toHaveLength(601 * second)
    expect(to.get()[600 * second + 17]).toBe((600 * second + 17) % 251)
    expect(all.size).toBe(0)
  }, 60_000)

  test('arrive once each, in order, in any weather, and after a page that was closed too', async () => {
    for (let seed = 1; seed <= 40; seed++) {
      let state = seed
      const random = () => (state = (state * 48271) % 2147483647) / 2147483647
      const to = server()
      const { all, spool } = memorySpool()
      let fine = false
      to.weather.now = () => {
        const r = random()
        return fine || r < 0.4
          ? 'fine'
          : r < 0.75
            ? 'away'
            : r < 0.9
              ? 'answer lost'
              : new Problem(503, 'busy')
      }
      let closed = false
      const pause = () => (closed ? new Promise<void>(() => {}) : Promise.resolve())
      const sender = new PieceSender('a', nothing, nothing, { send: to.send, spool, pause })
      let total = 0
      for (let n = 0; n < 40; n++) {
        const length = 1 + Math.floor(random() * (n % 7 === 0 ? 300_000 : 2_000))
        sender.add(counted(length, total))
        total += length
        if (random() < 0.3) await new Promise((done) => setTimeout(done))
      }
      if (seed % 2) {
        fine = true
        await sender.settled()
      } else {
        // The network goes away for good, the page is closed, and another page sends what is left.
        closed = true
        to.weather.now = () => 'away'
        sender.add(counted(10, total))
        total += 10
        await vi.waitFor(() =>
          expect([...all.values()].reduce((sum, p) => Math.max(sum, p.at + p.bytes.length), 0)).toBe(total),
        )
        fine = true
        to.weather.now = () => 'fine'
        expect(await sendSpooled(spool, to.send)).toBe(1)
      }
      expect(to.get(), `seed ${seed}`).toHaveLength(total)
      expect(
        to.get().every((byte, at) => byte === at % 251),
        `seed ${seed}`,
      ).toBe(true)
      expect(all.size, `seed ${seed}`).toBe(0)
      expect(to.largest()).toBeLessThanOrEqual(1 << 20)
    }
  }, 30_000)
})

test('a file goes in pieces, in order, and says how far it is', async () => {
  const sent: [number, number][] = []
  const shares: number[] = []
  const answer = { have: 0, strokes: [], level: -60, clipped: 0 }
  await sendFile(
    'a',
    new Blob([new Uint8Array(2_000_000)]),
    (share) => shares.push(share),
    async (_, at, piece) => {
      sent.push([at, piece.size])
      return answer
    },
  )
  expect(sent).toEqual([
    [0, 900_000],
    [900_000, 900_000],
    [1_800_000, 200_000],
  ])
  expect(shares).toEqual([0, 0.45, 0.9])
})

test('a sender that is stopped sends nothing more, and is done when what was on its way has arrived', async () => {
  const sent: number[] = []
  let arrive = () => {}
  const sender = new PieceSender(
    'a',
    () => {},
    () => {},
    {
      send: async (_, at, piece) => {
        sent.push(piece.size)
        await new Promise<void>((done) => (arrive = done))
        return { have: at + piece.size, strokes: [], level: -60, clipped: 0 }
      },
    },
  )
  sender.add(new Uint8Array(2))
  sender.add(new Uint8Array(4))
  await Promise.resolve()
  const stopped = sender.stop()
  sender.add(new Uint8Array(6))
  arrive()
  await stopped
  expect(sent).toEqual([2])
})
