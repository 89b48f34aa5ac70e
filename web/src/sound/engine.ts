import {
  Compressor,
  Distortion,
  FeedbackDelay,
  Filter,
  Gain,
  getDestination,
  getDraw,
  getTransport,
  start as unlock,
  ToneAudioBuffer,
  ToneBufferSource,
  Volume,
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

export interface Listener {
  bar: (bar: number) => void
  event: (index: number | undefined) => void
  end: () => void
}

/** Sounds performances: the core has decided all that is to be heard. */
export class Engine {
  private readonly buffers = new Map<string, ToneAudioBuffer>()
  private readonly buses: Record<Part, Volume>
  private readonly sounding = new Set<ToneBufferSource>()

  private constructor() {
    const out = new Compressor({ threshold: -16, ratio: 3 }).connect(getDestination())
    const bus = (part: Part, through: Gain | Filter | Compressor) => new Volume(levels[part]).connect(through)
    const tone = new Filter(4200, 'lowpass').connect(out)
    const echo = new FeedbackDelay({ delayTime: 0.12, feedback: 0.18, wet: 0.1 }).connect(tone)
    const drive = new Distortion({ distortion: 0.16, wet: 0.45 }).connect(echo)
    const amplifier = new Gain(1).connect(drive)
    this.buses = {
      line: bus('line', amplifier),
      bass: bus('bass', out),
      chords: bus('chords', out),
      click: bus('click', out),
    }
  }

  /** Loads every sample; the sounds ship with the application. */
  static async load(): Promise<Engine> {
    const engine = new Engine()
    const files = Object.values(kit).flatMap((list) => list.map((sample) => sample.file))
    await Promise.all(
      files.map(async (file) => {
        const url = urls[`./samples/${file}`]
        if (!url) throw new Error(`the sound ${file} is missing`)
        engine.buffers.set(file, await new ToneAudioBuffer().load(url))
      }),
    )
    return engine
  }

  /** Plays from the start, and tells the listener what is heard as it is heard. */
  async play(performance: Performance, listener: Listener) {
    await unlock()
    this.stop()
    const transport = getTransport()
    const seconds = 60 / (performance.tempo * performance.beatTicks)
    const at = (tick: number, run: (time: number) => void) => transport.schedule(run, tick * seconds)
    const see = (run: () => void) => (time: number) => getDraw().schedule(run, time)
    for (const mark of performance.bars)
      at(
        mark.tick,
        see(() => listener.bar(mark.bar)),
      )
    for (const note of performance.notes) {
      at(note.tick, (time) => this.sound(note, time, seconds))
      const index = note.event
      if (index === undefined) continue
      at(
        note.tick,
        see(() => listener.event(index)),
      )
    }
    at(performance.end, (time) => {
      this.letGo(time)
      getDraw().schedule(listener.end, time)
    })
    transport.start('+0.08')
  }

  stop() {
    const transport = getTransport()
    transport.stop()
    transport.cancel(0)
    transport.position = 0
    getDraw().cancel(0)
    this.letGo()
  }

  private letGo(time?: number) {
    for (const source of this.sounding) source.stop(time)
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
    source.onended = () => {
      this.sounding.delete(source)
      source.dispose()
    }
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
