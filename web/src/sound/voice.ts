import type { Mixer, Part } from './mixer'
import { nearest, type LoadedSamples } from './samples'
import type { Note, Sounding } from './transport'

/** Seconds a note takes to die away once it is let go. */
const release: Record<Part, number> = { line: 0.07, bass: 0.06, chords: 0.12, click: 0.05, drums: 0.05 }
/** Seconds in which what is stopped fades, so that it does not click. */
export const fade = 0.03

/** Keys of the kit: the open hat rings until the hat is closed. */
const closedHat = 42
const hatFoot = 44
const openHat = 46
const choke = 0.03

/** Sounds notes through a mixer. */
export class Voice {
  private ringing: { envelope: GainNode; start: number } | undefined

  constructor(
    private readonly context: BaseAudioContext,
    private readonly samples: LoadedSamples,
    private readonly mixer: Mixer,
  ) {}

  /** Sounds a note at a time of the context's clock. */
  sound = (note: Note, time: number, secondsPerTick: number): Sounding => {
    const name = note.part === 'chords' ? this.mixer.sound : note.part
    const sample = nearest(name, note.midi, this.samples.notes)
    const loaded = sample && this.samples.notes.get(sample.file)
    if (!sample || !loaded) return { start: time, end: time, stop: () => {} }
    const struck = note.part === 'drums' || note.part === 'click'
    const rate = (cents: number) => (struck ? 1 : 2 ** ((note.midi - sample.midi) / 12 + cents / 1200))
    const held = time + note.ticks * secondsPerTick
    // What is struck rings as long as it rings.
    const end = struck ? time + loaded.buffer.duration - loaded.lead : held
    const gone = end + (struck ? 0 : release[note.part])
    const [loopStart, loopEnd] = sample.loop ?? []
    const source = new AudioBufferSourceNode(this.context, {
      buffer: loaded.buffer,
      playbackRate: rate(0),
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
    const envelope = new GainNode(this.context, { gain: loudness })
    if (!struck) {
      envelope.gain.setValueAtTime(loudness, end)
      envelope.gain.linearRampToValueAtTime(0, gone)
    }
    if (note.part === 'drums') this.closeHat(note.midi, envelope, time)
    source.connect(envelope).connect(this.mixer.bus(note.part))
    source.onended = () => envelope.disconnect()
    source.start(time, loaded.lead)
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

  /** The open hat is cut off by whatever is played on the hat next. */
  private closeHat(key: number, envelope: GainNode, time: number) {
    if (key !== closedHat && key !== hatFoot && key !== openHat) return
    const open = this.ringing
    if (open && open.start < time) {
      open.envelope.gain.setTargetAtTime(0, time, choke / 3)
      this.ringing = undefined
    }
    if (key === openHat) this.ringing = { envelope, start: time }
  }
}
