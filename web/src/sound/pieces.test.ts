import { describe, expect, test } from 'vitest'
import { Problem, type HeardSoFar } from '../api/client'
import { pcm16, PieceSender, sendFile } from './pieces'

const answer = (have: number): HeardSoFar => ({ have, strokes: [], level: -60, clipped: 0 })

test('samples become whole numbers of 16 bits, and no number is silence', () => {
  expect([...pcm16(new Float32Array([0, 1, -1, 0.5, NaN, 7]))]).toEqual([
    ...[0, 0, 255, 127, 1, 128, 0, 64, 0, 0, 255, 127],
  ])
})

describe('pieces', () => {
  test('arrive in order, one at a time', async () => {
    const sent: number[][] = []
    const sender = new PieceSender(
      'a',
      () => {},
      () => {},
      async (_, at, piece) => {
        sent.push([at, piece.size])
        await Promise.resolve()
        return answer(at + piece.size)
      },
    )
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
    const said: (number | undefined)[] = []
    let calls = 0
    const received: number[] = []
    const sender = new PieceSender(
      'a',
      () => {},
      (problem) => said.push(problem?.status),
      async (_, at, piece) => {
        if (++calls <= 2) throw new Problem(0, 'gone')
        received.push(at, piece.size)
        return answer(at + piece.size)
      },
      async () => {},
    )
    sender.add(new Uint8Array(4))
    await sender.settled()
    expect(said).toEqual([0, 0, undefined])
    expect(received).toEqual([0, 4])
  })

  test('of which the answer was lost go on from what has come', async () => {
    const sent: number[][] = []
    const sender = new PieceSender(
      'a',
      () => {},
      () => {},
      async (_, at, piece) => {
        sent.push([at, piece.size])
        if (sent.length === 1)
          throw new Problem(409, 'a gap', [{ field: 'query.at', message: '', value: '4' }])
        return answer(at + piece.size)
      },
      async () => {},
    )
    sender.add(new Uint8Array(10))
    await sender.settled()
    expect(sent).toEqual([
      [0, 10],
      [4, 6],
    ])
  })

  test('that are refused are not sent again', async () => {
    let calls = 0
    const said: string[] = []
    const sender = new PieceSender(
      'a',
      () => {},
      (p) => said.push(p?.message ?? ''),
      async () => {
        calls++
        throw new Problem(507, 'full')
      },
      async () => {
        if (calls > 3) sender.add = () => {}
        if (calls > 3) throw new Error('enough')
      },
    )
    sender.add(new Uint8Array(2))
    await sender.settled().catch(() => {})
    expect(said[0]).toBe('full')
    const refused = new PieceSender(
      'a',
      () => {},
      (p) => said.push(p?.message ?? ''),
      async () => {
        throw new Problem(422, 'an hour at most')
      },
    )
    refused.add(new Uint8Array(2))
    await refused.settled()
    expect(said.at(-1)).toBe('an hour at most')
  })
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
    async (_, at, piece) => {
      sent.push(piece.size)
      await new Promise<void>((done) => (arrive = done))
      return { have: at + piece.size, strokes: [], level: -60, clipped: 0 }
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
