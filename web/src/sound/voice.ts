import type { Note, Sounding } from './transport'
import samples from './samples/samples.json'

export type Part = Note['part']
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
/** Seconds in which what is stopped fades, so that it does not click. */
export const fade = 0.03

export type Buffers = Map<string, AudioBuffer>

/** Loads every sample; the sounds ship with the application. */
export async function loadSamples(context: BaseAudioContext): Promise<Buffers> {
  const buffers: Buffers = new Map()
  const files = Object.values(kit).flatMap((list) => list.map((sample) => sample.file))
  await Promise.all(
    [...new Set(files)].map(async (file) => {
      const url = urls[`./samples/${file}`]
      if (!url) throw new Error(`the sound ${file} is missing`)
      const response = await fetch(url)
      if (!response.ok) throw new Error(`the sound ${file} could not be loaded`)
      buffers.set(file, await context.decodeAudioData(await response.arrayBuffer()))
    }),
  )
  return buffers
}

const gainOf = (context: BaseAudioContext, gain: number) => new GainNode(context, { gain })
const decibels = (db: number) => 10 ** (db / 20)

/** The parts of the band and the line, mixed in an audio context. */
export class Voice {
  private readonly buses: Record<Part, AudioNode>

  constructor(
    private readonly context: BaseAudioContext,
    private readonly buffers: Buffers,
  ) {
    const out = new DynamicsCompressorNode(context, { threshold: -16, ratio: 3 })
    out.connect(context.destination)
    // A guitar through a small amplifier: some of it driven, its top rolled off, and one
    // short echo. Plain gains only: what mixes them never moves.
    const speaker = new BiquadFilterNode(context, { type: 'lowpass', frequency: 4200 })
    speaker.connect(out)
    const echo = new DelayNode(context, { delayTime: 0.12 })
    speaker.connect(echo).connect(gainOf(context, 0.12)).connect(out)
    const amplifier = gainOf(context, 1)
    amplifier.connect(gainOf(context, 0.6)).connect(speaker)
    const curve = Float32Array.from({ length: 1024 }, (_, n) => Math.tanh(1.6 * ((n / 1023) * 2 - 1)))
    const driven = new WaveShaperNode(context, { curve })
    amplifier.connect(gainOf(context, 2.2)).connect(driven).connect(gainOf(context, 0.32)).connect(speaker)
    const bus = (part: Part, through: AudioNode) => {
      const node = gainOf(context, decibels(levels[part]))
      node.connect(through)
      return node
    }
    this.buses = {
      line: bus('line', amplifier),
      bass: bus('bass', out),
      chords: bus('chords', out),
      click: bus('click', out),
    }
  }

  /** Sounds a note at a time of the context's clock. */
  sound = (note: Note, time: number, secondsPerTick: number): Sounding => {
    const sample = nearest(kit[note.part], note.midi)
    const end = time + note.ticks * secondsPerTick
    const gone = end + release[note.part]
    const buffer = this.buffers.get(sample.file)
    if (!buffer) return { start: time, end: gone, stop: () => {} }
    const rate = (cents: number) => 2 ** ((note.midi - sample.midi) / 12 + cents / 1200)
    const [loopStart, loopEnd] = sample.loop ?? []
    const source = new AudioBufferSourceNode(this.context, {
      buffer,
      playbackRate: rate(note.part === 'click' ? (sample.midi - note.midi) * 400 : 0),
      loop: loopEnd !== undefined,
      loopStart: loopStart ?? 0,
      loopEnd: loopEnd ?? 0,
    })
    note.curve?.forEach((point, index) => {
      const when = time + point.ticks * secondsPerTick
      if (index === 0) source.playbackRate.setValueAtTime(rate(point.cents), when)
      else source.playbackRate.exponentialRampToValueAtTime(rate(point.cents), when)
    })
    const loudness = (note.loudness / 127) ** 1.5
    const envelope = gainOf(this.context, loudness)
    envelope.gain.setValueAtTime(loudness, end)
    envelope.gain.linearRampToValueAtTime(0, gone)
    source.connect(envelope).connect(this.buses[note.part])
    source.onended = () => envelope.disconnect()
    source.start(time)
    source.stop(gone)
    return {
      start: time,
      end: gone,
      stop: () => {
        const now = this.context.currentTime
        envelope.gain.cancelScheduledValues(now)
        if (now < time) return source.stop()
        envelope.gain.setTargetAtTime(0, now, fade / 3)
        source.stop(now + fade)
      },
    }
  }
}

function nearest(list: Sample[], midi: number): Sample {
  return list.reduce((best, sample) =>
    Math.abs(sample.midi - midi) < Math.abs(best.midi - midi) ? sample : best,
  )
}
