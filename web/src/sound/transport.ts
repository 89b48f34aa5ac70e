import type { Chart, Pass, Performance } from '../api/client'

export type Note = Performance['notes'][number]
export type BeatMark = Performance['beats'][number]
export type ChordMark = Performance['chords'][number]

/** A stretch of music that is played without a break: a chorus, some bars, a lick. */
export interface Chunk {
  performance: Performance
  /** The pass of a routine that it is, if it is one. */
  pass?: Pass
  /** The key and tempo that the tune had when it was asked for. */
  tune?: { tonic: string; tempo: number }
  /** The chart that it goes through, where that is another than the tune's and is to be shown. */
  ownChart?: Chart
  /** Which bars of its pass it is, where they are looped. */
  loop?: { from: number; to: number }
  /** They are played once, and it goes on after them. */
  once?: boolean
}

/** Seconds of the audio clock, and what is to happen at a moment of it. */
export interface Clock {
  now(): number
  /** Seconds from the audio clock to the ear. */
  latency(): number
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

/** Told of what is heard, when it is heard. */
export interface Listener {
  chunk(chunk: Chunk): void
  beat(mark: BeatMark): void
  chord(mark: ChordMark): void
  event(index: number | undefined): void
  end(): void
  /** What comes next could not be had. */
  failed(error: unknown): void
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
/** What comes next is asked for when less than this many seconds are left, of those not handed over. */
export const askAhead = 8

interface Sight {
  time: number
  run: () => void
}

/** Where the handing over stands. */
interface Cursor {
  chunk: Chunk
  tick: number
  time: number
  /** The tick at which the chunk is left. */
  end: number
}

/** A stretch of a chunk that was handed over, at one speed. */
interface Laid extends Cursor {
  perTick: number
}

type Next = (before: Chunk) => Promise<Chunk | undefined>

/**
 * Plays chunks one after the other by the audio clock, at any speed. What comes next is asked
 * for ahead of time. Whatever changes is taken back and handed over anew from a moment later,
 * so that nothing is heard twice and no gap.
 */
export class Transport {
  private cursor: Cursor
  private laid: Laid[] = []
  private queue: Chunk[] = []
  private sounding: Sounding[] = []
  private sights: Sight[] = []
  private asking: symbol | undefined
  /** There is nothing after the last chunk. */
  private over = false
  private ended = false
  private endTimer: (() => void) | undefined
  private pump: (() => void) | undefined

  constructor(
    first: Chunk,
    private readonly next: Next,
    private readonly clock: Clock,
    private readonly sound: SoundNote,
    private readonly listener: Listener,
    private speed = 1,
  ) {
    this.cursor = { chunk: first, tick: 0, time: 0, end: first.performance.end }
  }

  start() {
    this.cursor.time = this.clock.now() + lead
    this.seeChunk(this.cursor)
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
    this.asking = undefined
    this.sights = []
    this.ended = true
  }

  /** Seconds a tick of a chunk lasts at the present speed. */
  private perTick({ performance }: Chunk): number {
    return 60 / (performance.tempo * performance.beatTicks * this.speed)
  }

  /** Plays on at so many times the written speed. */
  setSpeed(speed: number) {
    if (speed === this.speed || this.ended) return
    this.takeBack()
    this.speed = speed
    this.run()
  }

  /** The chunk that is handed over a moment from now. */
  get present(): Chunk {
    return this.stretchAt(this.clock.now() + turn)?.chunk ?? this.cursor.chunk
  }

  /** Asks anew for what comes after the present chunk. */
  askAnew() {
    if (this.ended) return
    this.takeBack()
    this.forgetNext()
    this.run()
  }

  /** Goes on with another reading of a chunk that sounds, from where it stands. */
  replace(old: Chunk, by: Chunk) {
    if (this.ended) return
    this.takeBack()
    this.forgetNext()
    if (this.cursor.chunk === old) {
      this.cursor.chunk = by
      this.cursor.end = by.performance.end
      this.see(this.cursor.time, () => this.listener.chunk(by))
    }
    this.run()
  }

  /**
   * Goes on with another chunk: at the end of a bar of the present one, if that is still to
   * come, else at the end of the bar that sounds.
   */
  turnTo(chunk: Chunk, afterBar?: number) {
    if (this.ended) return
    this.takeBack()
    this.forgetNext()
    this.queue = [chunk]
    this.cursor.end = this.barEnd(this.cursor, afterBar)
    this.run()
  }

  private forgetNext() {
    this.queue = []
    this.asking = undefined
    this.over = false
  }

  /** The tick at which a bar ends that has not ended yet; without one the bar that sounds. */
  private barEnd({ chunk, tick }: Cursor, bar?: number): number {
    const { beats, end, countIn } = chunk.performance
    const ends = [...beats.filter((b) => b.beat === 1 && b.tick > countIn).map((b) => b.tick), end]
    if (bar !== undefined) {
      const last = beats.findLast((b) => b.bar === bar)
      const its = last && ends.find((at) => at > last.tick)
      if (its !== undefined && its >= tick) return its
    }
    return ends.find((at) => at >= tick) ?? end
  }

  /** The chunk that is heard now and the tick of it, the way to the ear counted in. */
  heard(): { chunk: Chunk; tick: number } | undefined {
    return this.placeAt(this.clock.now() - this.clock.latency())
  }

  /** The same of what is sent to the sound device now, by the audio clock alone. */
  sent(): { chunk: Chunk; tick: number } | undefined {
    return this.placeAt(this.clock.now())
  }

  private placeAt(time: number): { chunk: Chunk; tick: number } | undefined {
    const stretch = this.stretchAt(time)
    return stretch && { chunk: stretch.chunk, tick: stretch.tick + (time - stretch.time) / stretch.perTick }
  }

  private stretchAt(time: number): Laid | undefined {
    return this.laid.findLast((one) => one.time <= time)
  }

  /** Takes back what was handed to the clock and begins later than a moment from now. */
  private takeBack() {
    const time = Math.max(this.clock.now() + turn, this.laid[0]?.time ?? 0)
    const stretch = this.stretchAt(time)
    this.endTimer?.()
    this.endTimer = undefined
    if (!stretch || time >= this.cursor.time) return
    for (const one of this.sounding) if (one.start >= time) one.stop()
    this.sounding = this.sounding.filter((one) => one.start < time)
    this.sights = this.sights.filter((one) => one.time < time + this.clock.latency())
    // Chunks that had been begun stand before the others again.
    const begun = [...this.laid.filter((one) => one.time > time).map((one) => one.chunk), this.cursor.chunk]
    const again = begun.filter((chunk, n) => chunk !== stretch.chunk && begun.indexOf(chunk) === n)
    this.queue = [...again, ...this.queue.filter((chunk) => !again.includes(chunk))]
    this.laid = this.laid.filter((one) => one.time <= time)
    const tick = stretch.tick + (time - stretch.time) / stretch.perTick
    this.cursor = { chunk: stretch.chunk, tick, time, end: stretch.end }
  }

  /** Hands over what begins within the time ahead, and tells what is heard now. */
  private run() {
    if (this.ended) return
    const now = this.clock.now()
    const until = now + ahead
    while (this.cursor.time < until) {
      const { cursor } = this
      if (cursor.tick >= cursor.end) {
        const chunk = this.queue.shift()
        if (!chunk) break
        // What came too late goes on now.
        const time = cursor.time < now ? now + lead : cursor.time
        this.cursor = { chunk, tick: 0, time, end: chunk.performance.end }
        this.seeChunk(this.cursor)
        continue
      }
      const perTick = this.perTick(cursor.chunk)
      const endTime = cursor.time + (cursor.end - cursor.tick) * perTick
      const whole = endTime <= until
      const to = whole ? cursor.end : cursor.tick + (until - cursor.time) / perTick
      this.hand(cursor, to, perTick)
      this.laid.push({ ...cursor, perTick })
      this.cursor = { ...cursor, tick: to, time: whole ? endTime : until }
    }
    this.laid = this.laid.filter((_, n) => (this.laid[n + 1]?.time ?? Infinity) > now - 1)
    this.sounding = this.sounding.filter((one) => one.end > now)
    this.ask(now)
    this.tell(now)
  }

  /** Asks for what comes after the last chunk, if it is time. */
  private ask(now: number) {
    const { cursor } = this
    const last = this.queue[this.queue.length - 1] ?? cursor.chunk
    let left = cursor.time - now + (cursor.end - cursor.tick) * this.perTick(cursor.chunk)
    for (const chunk of this.queue) left += chunk.performance.end * this.perTick(chunk)
    if (this.over) return this.endAt(this.queue.length === 0 && cursor.tick >= cursor.end)
    if (this.asking || left > askAhead + ahead) return
    const mine = Symbol('asking')
    this.asking = mine
    this.next(last).then(
      (chunk) => {
        if (this.asking !== mine) return
        this.asking = undefined
        if (chunk) this.queue.push(chunk)
        else this.over = true
        this.run()
      },
      (error: unknown) => {
        if (this.asking !== mine) return
        this.asking = undefined
        this.over = true
        this.listener.failed(error)
        this.run()
      },
    )
  }

  private endAt(allHanded: boolean) {
    if (!allHanded || this.endTimer) return
    this.endTimer = this.clock.at(this.cursor.time, () => {
      this.halt()
      this.listener.end()
    })
  }

  private hand({ chunk, tick: from, time }: Cursor, to: number, perTick: number) {
    const { performance } = chunk
    const at = (tick: number) => time + (tick - from) * perTick
    const inside = (one: { tick: number }) => one.tick >= from && one.tick < to
    for (const mark of performance.beats.filter(inside))
      this.see(at(mark.tick), () => this.listener.beat(mark))
    for (const mark of performance.chords.filter(inside))
      this.see(at(mark.tick), () => this.listener.chord(mark))
    for (const note of performance.notes.filter(inside)) {
      const starts = at(note.tick)
      this.sounding.push(this.sound(note, starts, perTick))
      if (note.event !== undefined) this.see(starts, () => this.listener.event(note.event))
      for (const one of note.continues ?? [])
        this.see(starts + one.ticks * perTick, () => this.listener.event(one.event))
    }
  }

  private seeChunk({ chunk, time }: Cursor) {
    this.see(time, () => this.listener.chunk(chunk))
  }

  /** What happens at a time of the audio clock is told when it is heard. */
  private see(time: number, run: () => void) {
    this.sights.push({ time: time + this.clock.latency(), run })
  }

  /** Tells what is being heard; asked for by whoever paints, too. */
  tell(now = this.clock.now()) {
    const due = this.sights.filter((one) => one.time <= now).sort((a, b) => a.time - b.time)
    if (due.length === 0) return
    this.sights = this.sights.filter((one) => one.time > now)
    for (const one of due) one.run()
  }
}
