import {
  Compressor,
  Delay,
  Filter,
  Gain,
  getDestination,
  getDraw,
  immediate,
  now,
  Offline,
  start as unlock,
  ToneAudioBuffer,
  ToneBufferSource,
  Volume,
  WaveShaper,
} from 'tone'
import type { Performance } from '../api/client'
import samples from './samples/samples.json'

type Note = Performance['notes'][number]
type Part = Note['part']
interface Sample {
  file: string
  /** The measured pitch, in semitones as MIDI counts them. */
  midi: number
  loop?: number[]
}

const urls = import.meta.glob<string>('./samples/*.ogg', { query: '?url', import: 'default', eager: true })
const kit = samples as Record<Part, Sample[]>

/** Decibels of each part, by ear: the line in front, the click behind. */
const levels: Record<Part, number> = { line: -7, bass: -8, chords: -15, click: -15 }
/** Seconds a note takes to die away once it is let go. */
const release: Record<Part, number> = { line: 0.07, bass: 0.06, chords: 0.18, click: 0.05 }

/**
 * Notes are handed to the audio clock this many seconds before they sound, so
 * that a page that stalls for a moment is never heard; looked at this often, in
 * milliseconds; and the first of them this many seconds after the start.
 */
const ahead = 2.5
const interval = 400
const lead = 0.06
/** Seconds that are rendered past the end, for the last notes to die away in. */
const tail = 0.5

export interface Listener {
  bar: (bar: number) => void
  event: (index: number | undefined) => void
  end: () => void
  /** Asked at the end: whether to play it again, without the count-in. */
  again?: () => boolean
}

/** Sounds performances: the core has decided all that is to be heard. */
export class Engine {
  private readonly buses: Record<Part, Volume>
  private readonly sounding = new Set<ToneBufferSource>()
  private timer: ReturnType<typeof setTimeout> | undefined

  private constructor(private readonly buffers: Map<string, ToneAudioBuffer>) {
    const out = new Compressor({ threshold: -16, ratio: 3 }).connect(getDestination())
    const bus = (part: Part, through: Gain | Compressor) => new Volume(levels[part]).connect(through)
    // A guitar through a small amplifier: some of it driven, its top rolled off,
    // and one short echo. Plain gains only: what mixes them never moves.
    const speaker = new Filter(4200, 'lowpass').connect(out)
    speaker.chain(new Delay(0.12), new Gain(0.12), out)
    const amplifier = new Gain(1)
    amplifier.chain(new Gain(0.6), speaker)
    amplifier.chain(
      new Gain(2.2),
      new WaveShaper((level) => Math.tanh(1.6 * level), 1024),
      new Gain(0.32),
      speaker,
    )
    this.buses = {
      line: bus('line', amplifier),
      bass: bus('bass', out),
      chords: bus('chords', out),
      click: bus('click', out),
    }
  }

  /** Loads every sample; the sounds ship with the application. */
  static async load(): Promise<Engine> {
    const buffers = new Map<string, ToneAudioBuffer>()
    const files = Object.values(kit).flatMap((list) => list.map((sample) => sample.file))
    await Promise.all(
      files.map(async (file) => {
        const url = urls[`./samples/${file}`]
        if (!url) throw new Error(`the sound ${file} is missing`)
        buffers.set(file, await new ToneAudioBuffer().load(url))
      }),
    )
    return new Engine(buffers)
  }

  /** What a performance sounds like from its first tick on, computed as fast as can be. */
  async render(performance: Performance): Promise<AudioBuffer> {
    const seconds = 60 / (performance.tempo * performance.beatTicks)
    const rendered = await Offline(
      () => {
        const apart = new Engine(this.buffers) // its nodes belong to what is rendered
        for (const note of performance.notes) apart.sound(note, note.tick * seconds, seconds)
      },
      performance.end * seconds + tail,
    )
    const buffer = rendered.get()
    if (!buffer) throw new Error('the browser rendered no sound')
    return buffer
  }

  /** Plays from the start, and tells the listener what is heard as it is heard. */
  async play(performance: Performance, listener: Listener) {
    await unlock()
    this.stop()
    const seconds = 60 / (performance.tempo * performance.beatTicks)
    let begin = now() + lead
    const events: { tick: number; run: (time: number) => void }[] = [
      ...performance.bars.map((mark) => ({ tick: mark.tick, run: see(() => listener.bar(mark.bar)) })),
      ...performance.notes.map((note) => ({
        tick: note.tick,
        run: (time: number) => {
          this.sound(note, time, seconds)
          if (note.event !== undefined) see(() => listener.event(note.event))(time)
          for (const on of note.on ?? []) see(() => listener.event(on.event))(time + on.ticks * seconds)
        },
      })),
    ].sort((a, b) => a.tick - b.tick)
    const end = see(listener.end)
    let next = 0
    const pump = () => {
      for (;;) {
        const event = events[next]
        const time = begin + (event?.tick ?? performance.end) * seconds
        if (time >= now() + ahead) break
        if (event) {
          event.run(time)
          next++
        } else if (listener.again?.()) {
          begin += (performance.end - performance.countIn) * seconds
          next = events.findIndex((e) => e.tick >= performance.countIn)
        } else {
          end(time)
          return
        }
      }
      this.timer = setTimeout(pump, interval)
    }
    pump()
  }

  stop() {
    clearTimeout(this.timer)
    getDraw().cancel(0)
    this.letGo()
  }

  private letGo() {
    for (const source of this.sounding) source.stop(immediate())
    this.sounding.clear()
  }

  private sound(note: Note, time: number, seconds: number) {
    const sample = nearest(kit[note.part], note.midi)
    const buffer = this.buffers.get(sample.file)
    if (!buffer) return
    const rate = (cents: number) => 2 ** ((note.midi - sample.midi) / 12 + cents / 1200)
    const [loopStart, loopEnd] = sample.loop ?? []
    const source = new ToneBufferSource({
      url: buffer,
      playbackRate: rate(note.part === 'click' ? (sample.midi - note.midi) * 400 : 0),
      loop: loopEnd !== undefined,
      loopStart: loopStart ?? 0,
      loopEnd: loopEnd ?? 0,
      fadeOut: release[note.part],
    }).connect(this.buses[note.part])
    note.curve?.forEach((point, index) => {
      const when = time + point.ticks * seconds
      if (index === 0) source.playbackRate.setValueAtTime(rate(point.cents), when)
      else source.playbackRate.exponentialRampToValueAtTime(rate(point.cents), when)
    })
    // The library disposes of it by itself, but not while rendering, where the end
    // of a note is told before it has sounded.
    source.onended = () => this.sounding.delete(source)
    this.sounding.add(source)
    source.start(time, 0, undefined, (note.loudness / 127) ** 1.5)
    source.stop(time + note.ticks * seconds)
  }
}

function nearest(list: Sample[], midi: number): Sample {
  return list.reduce((best, sample) =>
    Math.abs(sample.midi - midi) < Math.abs(best.midi - midi) ? sample : best,
  )
}

/** Runs when a moment of the audio clock is heard. */
function see(run: () => void) {
  return (time: number) => getDraw().schedule(run, time)
}
