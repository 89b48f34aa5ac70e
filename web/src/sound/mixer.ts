import type { Note } from './transport'

export type Part = Note['part']
export const parts: Part[] = ['drums', 'bass', 'chords', 'line', 'click']

/** How loud each part is, 0 to 100, which are silent, and what plays the chords. */
export interface Mix {
  levels: Partial<Record<Part, number>>
  muted: Part[]
  sound: string
}

/** The level at which a part sounds as it was balanced, by ear: the line in front, the click behind. */
const plainLevel = 75
const balance: Record<Part, number> = { drums: -9, bass: -9, chords: -17, line: -9, click: -16 }

const decibels = (db: number) => 10 ** (db / 20)

/** The gain of a part in a mix. */
export function gainOf(mix: Mix, part: Part): number {
  if (mix.muted.includes(part)) return 0
  const level = mix.levels[part] ?? plainLevel
  return decibels(balance[part]) * (level / plainLevel) ** 2
}

/** What is quieter than this passes as it is; all above is bent below the ceiling. */
export const knee = 0.6
/** −1.1 dBFS: no sample is ever louder, whatever is mixed. */
export const ceiling = 0.88

/** Bends a sample below the ceiling: straight up to the knee, then ever flatter. */
export function limited(x: number): number {
  const size = Math.abs(x)
  if (size <= knee) return x
  const room = ceiling - knee
  return Math.sign(x) * (knee + room * Math.tanh((size - knee) / room))
}

/** The limiter's curve reaches this far; what is louder still stands at its end. */
const reach = 4

/** The last stage: a curve that nothing passes above the ceiling. */
export function limiter(context: BaseAudioContext): { input: AudioNode; output: AudioNode } {
  const input = new GainNode(context, { gain: 1 / reach })
  const points = 8193
  const curve = Float32Array.from({ length: points }, (_, n) => limited(((n / (points - 1)) * 2 - 1) * reach))
  const output = new WaveShaperNode(context, { curve })
  input.connect(output)
  return { input, output }
}

/** Seconds in which a level goes to where it is put, so that it does not crackle. */
const glide = 0.02

/** The parts, each through its own gain, into one output. */
export class Mixer {
  private readonly buses: Record<Part, GainNode>
  /** What is heard, before the limiter. */
  readonly output: GainNode

  constructor(
    private readonly context: BaseAudioContext,
    private mix: Mix,
  ) {
    this.output = new GainNode(context)
    const bus = (part: Part, to: AudioNode) => {
      const node = new GainNode(context, { gain: gainOf(mix, part) })
      node.connect(to)
      return node
    }
    this.buses = {
      drums: bus('drums', this.output),
      bass: bus('bass', this.output),
      chords: bus('chords', this.output),
      line: bus('line', this.amplifier()),
      click: bus('click', this.output),
    }
  }

  /** A guitar through a small amplifier: some of it driven, its top rolled off, and one short echo. */
  private amplifier(): AudioNode {
    const { context } = this
    const gain = (value: number) => new GainNode(context, { gain: value })
    const speaker = new BiquadFilterNode(context, { type: 'lowpass', frequency: 4200 })
    speaker.connect(this.output)
    const echo = new DelayNode(context, { delayTime: 0.12 })
    speaker.connect(echo).connect(gain(0.12)).connect(this.output)
    const amplifier = gain(1)
    amplifier.connect(gain(0.6)).connect(speaker)
    const curve = Float32Array.from({ length: 1024 }, (_, n) => Math.tanh(1.6 * ((n / 1023) * 2 - 1)))
    const driven = new WaveShaperNode(context, { curve })
    amplifier.connect(gain(2.2)).connect(driven).connect(gain(0.32)).connect(speaker)
    return amplifier
  }

  /** Where the notes of a part go. */
  bus(part: Part): AudioNode {
    return this.buses[part]
  }

  /** What plays the chords. */
  get sound(): string {
    return this.mix.sound
  }

  set(mix: Mix) {
    this.mix = mix
    for (const part of parts) {
      this.buses[part].gain.setTargetAtTime(gainOf(mix, part), this.context.currentTime, glide / 3)
    }
  }
}
