import list from './samples/samples.json'

/** One recorded note. */
export interface Sample {
  file: string
  /** The measured pitch, in semitones as MIDI counts them; of drums and click their key. */
  midi: number
  /** Where it may be held, in seconds. */
  loop?: number[]
}

/** What can sound: the parts of the band, and for the chords each of their sounds. */
export const kit = list as Record<string, Sample[]>
export type SoundName = string

/** A recorded note, ready to be sounded. */
export interface Loaded {
  buffer: AudioBuffer
  /** Seconds of silence before the note begins in it. */
  lead: number
}

export interface LoadedSamples {
  notes: Map<string, Loaded>
  /** The sounds of which a note could not be loaded; the rest plays. */
  missing: SoundName[]
}

const urls = import.meta.glob<string>('./samples/*.ogg', { query: '?url', import: 'default', eager: true })

/** A note begins where it first reaches this share of its peak. */
const onset = 0.02

/** Seconds before the first sample that is loud enough to be heard as the note. */
export function leadOf(samples: Float32Array, rate: number): number {
  let peak = 0
  const within = Math.min(samples.length, Math.floor(rate / 2))
  for (let n = 0; n < within; n++) peak = Math.max(peak, Math.abs(samples[n] ?? 0))
  for (let n = 0; n < within; n++) if (Math.abs(samples[n] ?? 0) >= peak * onset) return n / rate
  return 0
}

/** Loads every sample; the sounds ship with the application. What cannot be loaded is named. */
export async function loadSamples(context: BaseAudioContext): Promise<LoadedSamples> {
  const notes = new Map<string, Loaded>()
  const missing = new Set<SoundName>()
  const users = new Map<string, SoundName[]>()
  for (const [sound, samples] of Object.entries(kit))
    for (const { file } of samples) users.set(file, [...(users.get(file) ?? []), sound])
  await Promise.all(
    [...users].map(async ([file, sounds]) => {
      try {
        const url = urls[`./samples/${file}`]
        const response = url ? await fetch(url) : undefined
        if (!response?.ok) throw new Error(`the sound ${file} could not be loaded`)
        const buffer = await context.decodeAudioData(await response.arrayBuffer())
        notes.set(file, { buffer, lead: leadOf(buffer.getChannelData(0), buffer.sampleRate) })
      } catch {
        for (const sound of sounds) missing.add(sound)
      }
    }),
  )
  if (notes.size === 0) throw new Error('the sounds could not be loaded')
  return { notes, missing: [...missing] }
}

/** The sample of a sound that is nearest to a pitch, of those that are there. */
export function nearest(sound: SoundName, midi: number, notes: Map<string, Loaded>): Sample | undefined {
  let best: Sample | undefined
  for (const sample of kit[sound] ?? []) {
    if (!notes.has(sample.file)) continue
    if (!best || Math.abs(sample.midi - midi) < Math.abs(best.midi - midi)) best = sample
  }
  return best
}
