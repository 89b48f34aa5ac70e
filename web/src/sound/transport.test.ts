import { describe, expect, test } from 'vitest'
import type { Performance } from '../api/client'
import { fakeClock } from './fakeclock'
import { ahead, lead, Transport, turn, type Chunk, type Note } from './transport'

const beat = 480

/** So many bars of 4/4 with a note on every beat; at 60 a beat is a second. */
function bars(count: number, { tempo = 60, first = 1, countIn = 0, chord = 'C7' } = {}): Chunk {
  const total = (count + countIn) * 4
  const note = (n: number): Note => ({
    ...{ part: 'line', tick: n * beat, ticks: beat, midi: 60, loudness: 100, event: n },
  })
  const all = Array.from({ length: total }, (_, n) => n)
  const performance: Performance = {
    ...{ tempo, beatTicks: beat, countIn: countIn * 4 * beat, end: total * beat },
    beats: all.map((n) => ({
      ...{ tick: n * beat, bar: Math.floor(n / 4) - countIn + first, beat: (n % 4) + 1, at: n * beat },
    })),
    chords: [{ tick: countIn * 4 * beat, ticks: count * 4 * beat, chord, roman: 'I', at: 0 }],
    notes: all.map(note),
  }
  return { performance }
}

function played(first: Chunk, following: (Chunk | undefined)[] = [], { speed = 1, latency = 0 } = {}) {
  const fake = fakeClock(latency)
  const sounded: { time: number; stopped: boolean }[] = []
  const log: string[] = []
  let asked = 0
  const at = () => Math.round((fake.clock.now() - lead) * 100) / 100
  const transport = new Transport(
    first,
    () => Promise.resolve(following[asked++]),
    fake.clock,
    (note, time, perTick) => {
      const one = { time, stopped: false }
      sounded.push(one)
      return { start: time, end: time + note.ticks * perTick, stop: () => (one.stopped = true) }
    },
    {
      chunk: (chunk) => log.push(`${chunk.performance.tempo} from ${at()}`),
      beat: () => {},
      chord: (mark) => log.push(`${mark.chord} at ${at()}`),
      event: () => {},
      end: () => log.push(`end at ${at()}`),
      failed: (error) => log.push(String(error)),
    },
    speed,
  )
  transport.start()
  /** When each note that was not taken back begins, from the start. */
  const heard = () =>
    sounded
      .filter((s) => !s.stopped)
      .map((s) => Math.round((s.time - lead) * 1000) / 1000)
      .sort((a, b) => a - b)
  return { ...fake, transport, sounded, log, heard, asked: () => asked }
}
const upTo = (count: number, step = 1) => Array.from({ length: count }, (_, n) => n * step)

describe('in time', () => {
  test('notes are handed over ahead of their time, and no earlier', async () => {
    const p = played(bars(4))
    expect(p.sounded).toHaveLength(Math.ceil(ahead - lead))
    await p.advance(1)
    expect(p.sounded).toHaveLength(Math.ceil(ahead - lead) + 1)
  })

  test('every note begins where it belongs', async () => {
    const p = played(bars(2))
    await p.advance(20)
    expect(p.heard()).toEqual(upTo(8))
  })

  test('at twice the speed in half the time', async () => {
    const p = played(bars(2), [], { speed: 2 })
    await p.advance(20)
    expect(p.heard()).toEqual(upTo(8, 0.5))
  })

  test('what is seen is told when it is heard, the way to the ear counted in', async () => {
    const p = played(bars(1, { countIn: 1 }), [], { latency: 0.2 })
    await p.advance(9)
    const at = Number(p.log[1]?.replace('C7 at ', ''))
    expect(at).toBeGreaterThanOrEqual(4.2)
    expect(at).toBeLessThan(4.26)
  })

  test('the tick that is heard is known between the beats, the way to the ear counted in', async () => {
    const p = played(bars(2), [], { latency: 0.1 })
    await p.advance(lead + 1.6)
    expect(p.transport.heard()?.tick).toBeCloseTo(1.5 * beat, 0)
    p.transport.setSpeed(2)
    await p.advance(1)
    expect(p.transport.heard()!.tick).toBeGreaterThan(3.3 * beat)
  })

  test('a page that stalls for two seconds is not heard', async () => {
    const p = played(bars(4))
    await p.advance(3)
    p.stall(2)
    await p.advance(20)
    expect(p.heard()).toEqual(upTo(16))
  })
})

describe('one chunk after the other', () => {
  test('follows without a gap or a double', async () => {
    const p = played(bars(2), [bars(2, { tempo: 120 }), bars(1)])
    await p.advance(40)
    expect(p.heard()).toEqual([...upTo(8), ...upTo(8, 0.5).map((t) => t + 8), ...upTo(4).map((t) => t + 12)])
    const begun = p.log.filter((line) => line.includes('from')).map((line) => line.split(' from ')[0])
    expect(begun).toEqual(['60', '120', '60'])
  })

  test('is asked for ahead of time, and only as far as is needed', async () => {
    const p = played(
      bars(16),
      Array.from({ length: 9 }, () => bars(16)),
    )
    await p.advance(1)
    expect(p.asked()).toBe(0)
    await p.advance(55)
    expect(p.asked()).toBe(1)
  })

  test('short ones are asked for often enough', async () => {
    const p = played(
      bars(1, { tempo: 240 }),
      Array.from({ length: 40 }, () => bars(1, { tempo: 240 })),
    )
    await p.advance(20)
    expect(p.heard().slice(0, 80)).toEqual(upTo(80, 0.25))
  })

  test('after the last one it ends when that is over', async () => {
    const p = played(bars(1), [undefined])
    await p.advance(10)
    expect(p.log.at(-1)).toBe('end at 4')
    expect(p.running()).toBe(0)
  })

  test('one that cannot be had is told, and what there is is played to its end', async () => {
    const fake = fakeClock()
    const log: string[] = []
    const transport = new Transport(
      bars(1),
      () => Promise.reject(new Error('gone')),
      fake.clock,
      (_, time) => ({ start: time, end: time, stop: () => {} }),
      {
        chunk: () => {},
        beat: () => {},
        chord: () => {},
        event: () => {},
        end: () => log.push('end'),
        failed: (error) => log.push(String(error)),
      },
    )
    transport.start()
    await fake.advance(10)
    expect(log).toEqual(['Error: gone', 'end'])
  })
})

describe('another speed', () => {
  test('holds from where it is asked, and nothing is heard twice', async () => {
    const p = played(bars(2))
    await p.advance(2.5 + lead)
    p.transport.setSpeed(2)
    await p.advance(20)
    // At 2.55 the third beat is over by 0.55; what is left of it goes twice as fast.
    const next = 2.5 + turn + (3 - 2.5 - turn) / 2
    expect(p.heard()).toEqual([0, 1, 2, next, next + 0.5, next + 1, next + 1.5, next + 2])
  })

  test('over the border of a chunk takes the next one back too', async () => {
    const p = played(bars(1), [bars(1)])
    await p.advance(3 + lead)
    p.transport.setSpeed(2)
    await p.advance(20)
    const border = 3 + turn + (4 - 3 - turn) / 2
    expect(p.heard()).toEqual([0, 1, 2, 3, ...upTo(4, 0.5).map((t) => border + t)])
  })

  test('any number of changes lose and double nothing', async () => {
    const p = played(bars(2), [bars(2), bars(2)])
    for (const speed of [1.5, 0.7, 2, 0.5, 1, 1.2]) {
      await p.advance(1.1)
      p.transport.setSpeed(speed)
    }
    await p.advance(60)
    expect(p.heard()).toHaveLength(24)
    expect(new Set(p.heard()).size).toBe(24)
  })
})

describe('another reading', () => {
  test('of the chunk that sounds goes on from where it is', async () => {
    const first = bars(2)
    const p = played(first)
    await p.advance(2.5 + lead)
    const by = bars(2, { chord: 'F7' })
    by.performance.notes = by.performance.notes.map((n) => ({ ...n, tick: n.tick + 120 }))
    p.transport.replace(first, by)
    await p.advance(20)
    expect(p.heard()).toEqual([0, 1, 2, ...[3, 4, 5, 6, 7].map((t) => t + 0.25)])
  })

  test('of what comes next is asked for anew', async () => {
    const p = played(bars(2), [bars(4), bars(1, { tempo: 240 })])
    await p.advance(1)
    expect(p.asked()).toBe(1)
    p.transport.askAnew()
    await p.advance(20)
    expect(p.asked()).toBeGreaterThan(1)
    expect(p.heard()).toEqual([...upTo(8), ...upTo(4, 0.25).map((t) => t + 8)])
  })
})

describe('turning to other bars', () => {
  test('happens at the end of the bar that sounds', async () => {
    const p = played(bars(4))
    await p.advance(5 + lead)
    p.transport.turnTo(bars(1, { tempo: 120 }))
    await p.advance(20)
    expect(p.heard()).toEqual([...upTo(8), 8, 8.5, 9, 9.5])
  })

  test('happens at the end of a bar that is still to come', async () => {
    const p = played(bars(4))
    await p.advance(1 + lead)
    p.transport.turnTo(bars(1, { tempo: 120 }), 3)
    await p.advance(30)
    expect(p.heard()).toEqual([...upTo(12), 12, 12.5, 13, 13.5])
  })
})

describe('stopping', () => {
  test('stops what sounds and what would have', async () => {
    const p = played(bars(4))
    await p.advance(1.5)
    p.transport.stop()
    const before = p.sounded.length
    await p.advance(10)
    expect(p.sounded).toHaveLength(before)
    expect(p.heard()).toEqual([0])
    expect(p.running()).toBe(0)
  })

  test('what is answered afterwards is not played', async () => {
    const p = played(bars(1), [bars(1)])
    p.transport.stop()
    await p.advance(10)
    expect(p.heard()).toEqual([])
    expect(p.log).toEqual([])
  })
})
