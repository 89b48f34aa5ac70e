import { describe, expect, test } from 'vitest'
import type { Performance } from '../api/client'
import { ahead, lead, Transport, turn, type Clock, type Note } from './transport'

/** A clock that a test moves on; what is due runs as it does. */
function fakeClock() {
  let now = 0
  const timers: { every: number; next: number; run: () => void }[] = []
  const alarms: { time: number; run: () => void }[] = []
  const clock: Clock = {
    now: () => now,
    every(seconds, run) {
      const timer = { every: seconds, next: now + seconds, run }
      timers.push(timer)
      return () => void timers.splice(timers.indexOf(timer), 1)
    },
    at(time, run) {
      const alarm = { time, run }
      alarms.push(alarm)
      return () => {
        const at = alarms.indexOf(alarm)
        if (at >= 0) alarms.splice(at, 1)
      }
    },
  }
  function advance(seconds: number) {
    const end = now + seconds
    for (;;) {
      const next = Math.min(...timers.map((t) => t.next), ...alarms.map((a) => a.time), Infinity)
      if (next > end) break
      now = Math.max(now, next)
      for (const alarm of alarms.filter((a) => a.time <= now)) {
        alarms.splice(alarms.indexOf(alarm), 1)
        alarm.run()
      }
      for (const timer of [...timers].filter((t) => t.next <= now)) {
        timer.next += timer.every
        timer.run()
      }
    }
    now = end
  }
  return { clock, advance, running: () => timers.length + alarms.length }
}

/** Two bars of 4/4 at 60: a beat is a second. One bar is counted in. */
function twoBars(): Performance {
  const beat = 480
  const note = (part: Note['part'], beats: number, event?: number): Note => ({
    ...{ part, tick: beats * beat, ticks: beat, midi: 60, loudness: 100, event },
  })
  return {
    tempo: 60,
    beatTicks: beat,
    countIn: 4 * beat,
    end: 12 * beat,
    bars: [
      { tick: 4 * beat, bar: 1 },
      { tick: 8 * beat, bar: 2 },
    ],
    notes: [
      ...[0, 1, 2, 3].map((n) => note('click', n)),
      ...[4, 5, 6, 7, 8, 9, 10, 11].map((n, k) => note('line', n, k)),
    ],
  } as Performance
}

function played(speed = 1, loop = false, performance = twoBars()) {
  const fake = fakeClock()
  const sounded: { part: string; time: number; stopped: boolean }[] = []
  const log: string[] = []
  const transport = new Transport(
    performance,
    fake.clock,
    (note, time, perTick) => {
      const one = { part: note.part, time, stopped: false }
      sounded.push(one)
      return { start: time, end: time + note.ticks * perTick, stop: () => (one.stopped = true) }
    },
    {
      bar: (bar) => log.push(`bar ${bar}`),
      event: (event) => log.push(`event ${event}`),
      end: () => log.push('end'),
    },
    speed,
    loop,
  )
  transport.start()
  /** When each note that was not taken back begins, from the start. */
  const heard = () =>
    sounded
      .filter((s) => !s.stopped)
      .map((s) => Math.round((s.time - lead) * 1000) / 1000)
      .sort((a, b) => a - b)
  return { ...fake, transport, sounded, log, heard }
}

describe('in time', () => {
  test('notes are handed over ahead of their time, and no earlier', () => {
    const p = played()
    expect(p.sounded).toHaveLength(Math.ceil(ahead - lead))
    p.advance(1)
    expect(p.sounded).toHaveLength(Math.ceil(ahead - lead) + 1)
  })

  test('every note begins where it belongs', () => {
    const p = played()
    p.advance(20)
    expect(p.heard()).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11])
  })

  test('at twice the speed in half the time', () => {
    const p = played(2)
    p.advance(20)
    expect(p.heard()).toEqual([0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5, 5.5])
  })

  test('bars and events are told as they are heard', () => {
    const p = played()
    p.advance(4.2)
    expect(p.log).toEqual(['bar 1', 'event 0'])
    p.advance(4)
    expect(p.log).toEqual(['bar 1', 'event 0', 'event 1', 'event 2', 'event 3', 'bar 2', 'event 4'])
  })

  test('a tied note that goes on is told when it does', () => {
    const performance = twoBars()
    performance.notes[4]!.on = [{ ticks: 240, event: 9 }]
    const p = played(1, false, performance)
    p.advance(4.4)
    expect(p.log.at(-1)).toBe('event 0')
    p.advance(0.3)
    expect(p.log.at(-1)).toBe('event 9')
  })

  test('a page that stalls hears nothing of it', () => {
    const p = played()
    p.advance(1)
    expect(p.sounded.filter((s) => s.time <= 1 + ahead - 0.1)).toHaveLength(4)
  })
})

describe('the end', () => {
  test('is told by the clock when the last bar is over', () => {
    const p = played()
    p.advance(12)
    expect(p.log).not.toContain('end')
    p.advance(lead + 0.01)
    expect(p.log.at(-1)).toBe('end')
  })

  test('leaves nothing running', () => {
    const p = played()
    p.advance(13)
    expect(p.running()).toBe(0)
  })

  test('is told once', () => {
    const p = played()
    p.advance(60)
    expect(p.log.filter((l) => l === 'end')).toHaveLength(1)
  })
})

describe('stop', () => {
  test('silences what sounds and what would have sounded', () => {
    const p = played()
    p.advance(5)
    p.transport.stop()
    expect(p.sounded.filter((s) => s.time + 1 > 5 && !s.stopped)).toEqual([])
    p.advance(60)
    expect(p.log).not.toContain('end')
    expect(p.running()).toBe(0)
  })

  test('may be said again', () => {
    const p = played()
    p.transport.stop()
    p.transport.stop()
    expect(p.running()).toBe(0)
  })

  test('nothing is told after it', () => {
    const p = played()
    p.transport.stop()
    p.advance(20)
    expect(p.log).toEqual([])
  })
})

describe('speed while it plays', () => {
  test('acts within a beat, and loses no note', () => {
    const p = played()
    p.advance(4.5 + lead)
    p.transport.setSpeed(2)
    p.advance(20)
    const heard = p.heard()
    expect(heard).toHaveLength(12)
    // From 4.5 s and the turn on, what is left of the beat takes half the time.
    const from = 4.5 + turn
    expect(heard[5]).toBeCloseTo(from + (5 - from) / 2, 2)
    expect(heard[6]! - heard[5]!).toBeCloseTo(0.5, 3)
  })

  test('slower stretches what is to come', () => {
    const p = played()
    p.advance(2 + lead)
    p.transport.setSpeed(0.5)
    p.advance(40)
    const heard = p.heard()
    expect(heard).toHaveLength(12)
    expect(heard[11]! - heard[10]!).toBeCloseTo(2, 3)
  })

  test('changed again and again it still plays every note once', () => {
    const p = played()
    for (const speed of [0.5, 2, 0.8, 1.2, 0.25, 1]) {
      p.advance(0.7)
      p.transport.setSpeed(speed)
    }
    p.advance(120)
    expect(p.heard()).toHaveLength(12)
    expect(p.log.filter((l) => l.startsWith('event'))).toHaveLength(8)
  })

  test('set before the first note it holds from the start', () => {
    const p = played()
    p.transport.setSpeed(2)
    p.advance(20)
    expect(p.heard()).toHaveLength(12)
    expect(p.heard()[11]! - p.heard()[10]!).toBeCloseTo(0.5, 3)
  })

  test('the end moves with it', () => {
    const p = played()
    p.advance(6 + lead)
    p.transport.setSpeed(2)
    p.advance(3.1)
    expect(p.log.at(-1)).toBe('end')
  })
})

describe('a loop', () => {
  test('begins again without the count-in and without a gap', () => {
    const p = played(1, true)
    p.advance(28)
    expect(p.heard().slice(10, 16)).toEqual([10, 11, 12, 13, 14, 15])
    expect(p.sounded.filter((s) => s.part === 'click')).toHaveLength(4)
    expect(p.log).not.toContain('end')
  })

  test('turned off it ends with the round that plays', () => {
    const p = played(1, true)
    p.advance(14)
    p.transport.setLoop(false)
    p.advance(60)
    expect(p.log.at(-1)).toBe('end')
    expect(p.heard().at(-1)).toBe(19)
  })

  test('turned off shortly before the end it does not begin again', () => {
    const p = played(1, true)
    p.advance(11.7 + lead)
    p.transport.setLoop(false)
    p.advance(60)
    expect(p.heard()).toHaveLength(12)
    expect(p.log.at(-1)).toBe('end')
  })

  test('turned on shortly before the end it goes on', () => {
    const p = played()
    p.advance(11.7 + lead)
    p.transport.setLoop(true)
    p.advance(5)
    expect(p.log).not.toContain('end')
    expect(p.heard()).toContain(13)
  })

  test('turned on and off again it ends where it would have', () => {
    const p = played()
    p.advance(3)
    p.transport.setLoop(true)
    p.advance(1)
    p.transport.setLoop(false)
    p.advance(30)
    expect(p.heard()).toHaveLength(12)
    expect(p.log.at(-1)).toBe('end')
  })
})
