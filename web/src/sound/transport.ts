import type { Performance } from '../api/client'

export type Note = Performance['notes'][number]

/** Seconds of the audio clock, and what is to happen at a moment of it. */
export interface Clock {
  now(): number
  /** Runs something again and again, about every so many seconds; the result ends it. */
  every(seconds: number, run: () => void): () => void
  /** Runs something when the audio clock reaches a time, even in a page that is not looked at. */
  at(time: number, run: () => void): () => void
}

/** A note that was handed to the audio clock. */
export interface Sounding {
  /** When it begins and when it has died away, in seconds of the audio clock. */
  start: number
  end: number
  stop(): void
}

export type SoundNote = (note: Note, time: number, secondsPerTick: number) => Sounding

export interface Listener {
  bar(bar: number): void
  event(index: number | undefined): void
  end(): void
}

/**
 * Notes are handed to the audio clock this many seconds before they sound, so that a page
 * that stalls for a moment is never heard; looked at this often; and the first of them
 * this many seconds after the start.
 */
export const ahead = 2.5
export const interval = 0.05
export const lead = 0.06
/** What changes the time takes hold this many seconds later: within a beat at any tempo. */
export const turn = 0.05

interface Sight {
  time: number
  run: () => void
}

/**
 * Plays one performance by the audio clock: at any speed, once or in a loop, both of which
 * can be changed while it sounds. Played ticks count on through every round; a round after
 * the first leaves out the count-in.
 */
export class Transport {
  private readonly events: { tick: number; note?: Note; bar?: number }[]
  private readonly round: number
  private base = 0
  private baseTick = 0
  private next = 0
  private sounding: Sounding[] = []
  private sights: Sight[] = []
  private endTimer: (() => void) | undefined
  private pump: (() => void) | undefined
  private ended = false

  constructor(
    private readonly performance: Performance,
    private readonly clock: Clock,
    private readonly sound: SoundNote,
    private readonly listener: Listener,
    private speed = 1,
    private loop = false,
  ) {
    this.events = [
      ...performance.bars.map(({ tick, bar }) => ({ tick, bar })),
      ...performance.notes.map((note) => ({ tick: note.tick, note })),
    ].sort((a, b) => a.tick - b.tick)
    this.round = Math.max(performance.end - performance.countIn, 1)
  }

  /** Seconds a tick lasts at the present speed. */
  private get perTick(): number {
    return 60 / (this.performance.tempo * this.performance.beatTicks * this.speed)
  }

  private timeOf(playedTick: number): number {
    return this.base + (playedTick - this.baseTick) * this.perTick
  }

  private playedTickAt(time: number): number {
    return this.baseTick + (time - this.base) / this.perTick
  }

  start() {
    this.base = this.clock.now() + lead
    this.pump = this.clock.every(interval, () => this.run())
    this.run()
  }

  /** Ends at once what sounds and what would have sounded. */
  stop() {
    this.halt()
    for (const one of this.sounding) one.stop()
    this.sounding = []
  }

  private halt() {
    this.pump?.()
    this.endTimer?.()
    this.pump = this.endTimer = undefined
    this.sights = []
    this.ended = true
  }

  /** Plays on at so many times the written speed. */
  setSpeed(speed: number) {
    if (speed === this.speed || this.ended) return
    const time = Math.max(this.clock.now() + turn, this.base)
    const tick = this.playedTickAt(time)
    this.takeBack(time, tick)
    this.base = time
    this.baseTick = tick
    this.speed = speed
    this.run()
  }

  /** Begins again at the end, or no longer does. */
  setLoop(loop: boolean) {
    if (loop === this.loop || this.ended) return
    const time = Math.max(this.clock.now() + turn, this.base)
    this.takeBack(time, this.playedTickAt(time))
    this.loop = loop
    // Without a loop the round that is playing is the last.
    if (!loop) this.endRound = this.roundAt(this.next)
    this.run()
  }
  private endRound = 0

  /** Takes back what was handed to the clock and has not begun by a time. */
  private takeBack(time: number, tick: number) {
    for (const one of this.sounding) if (one.start >= time) one.stop()
    this.sounding = this.sounding.filter((one) => one.start < time)
    this.sights = this.sights.filter((one) => one.time < time)
    this.endTimer?.()
    this.endTimer = undefined
    this.next = tick
  }

  /** Which round a played tick is in, from 0. */
  private roundAt(playedTick: number): number {
    const { end } = this.performance
    return playedTick < end ? 0 : 1 + Math.floor((playedTick - end) / this.round)
  }

  /** The first played tick after a round. */
  private endOf(round: number): number {
    return this.performance.end + round * this.round
  }

  /** Hands over what begins within the time ahead, and tells what is heard now. */
  private run() {
    if (this.ended) return
    const now = this.clock.now()
    const until = this.playedTickAt(now + ahead)
    while (this.next < until) {
      const round = this.roundAt(this.next)
      if (!this.loop && round > this.endRound) break
      const offset = round * this.round
      const to = Math.min(until, this.endOf(round))
      for (const event of this.events) {
        const tick = event.tick + offset
        if (tick >= this.next && tick < to && (round === 0 || event.tick >= this.performance.countIn)) {
          this.hand(event, this.timeOf(tick))
        }
      }
      this.next = to
    }
    if (!this.loop && !this.endTimer && this.next >= this.endOf(this.endRound)) {
      this.endTimer = this.clock.at(this.timeOf(this.endOf(this.endRound)), () => {
        this.halt()
        this.listener.end()
      })
    }
    this.sounding = this.sounding.filter((one) => one.end > now)
    this.tell(now)
  }

  private hand(event: { note?: Note; bar?: number }, time: number) {
    const { note, bar } = event
    if (bar !== undefined) this.see(time, () => this.listener.bar(bar))
    if (!note) return
    this.sounding.push(this.sound(note, time, this.perTick))
    if (note.event !== undefined) this.see(time, () => this.listener.event(note.event))
    for (const on of note.on ?? [])
      this.see(time + on.ticks * this.perTick, () => this.listener.event(on.event))
  }

  private see(time: number, run: () => void) {
    this.sights.push({ time, run })
  }

  /** Tells what is being heard; asked for by whoever paints, too. */
  tell(now = this.clock.now()) {
    const due = this.sights.filter((one) => one.time <= now).sort((a, b) => a.time - b.time)
    if (due.length === 0) return
    this.sights = this.sights.filter((one) => one.time > now)
    for (const one of due) one.run()
  }
}
