import { limited, Mixer, type Mix } from './mixer'
import { loadSamples } from './samples'
import type { Chunk, Note } from './transport'
import { Voice } from './voice'

export const sampleRate = 44100
const channels = 2
/** Sound is rendered in pieces of so many seconds, so that a long one can be shown, stopped and held. */
const pieceSeconds = 30
/** Seconds in which the last notes of a piece die away, in the next one. */
const tailSeconds = 6
const stepSeconds = 1.5
/** Seconds that are rendered past the end. */
const after = 2.5

interface Timed {
  note: Note
  time: number
  perTick: number
}

/** One piece of sound, a list of samples for each channel, none louder than the ceiling. */
export type Piece = Float32Array<ArrayBuffer>[]

/**
 * Renders chunks as they come, as fast as can be, piece by piece. Each piece is followed by
 * the tail of what rang in it, which is added to the next one.
 */
export async function renderPieces(
  chunks: AsyncIterable<Chunk>,
  mix: Mix,
  speed: number,
  take: (piece: Piece, seconds: number) => void,
  signal?: AbortSignal,
): Promise<void> {
  const offline = (seconds: number) =>
    new OfflineAudioContext(channels, Math.ceil(seconds * sampleRate), sampleRate)
  const samples = await loadSamples(offline(1))
  let waiting: Timed[] = []
  let carried: Piece = emptyPiece(0)
  let from = 0
  let until = 0

  async function piece(seconds: number) {
    signal?.throwIfAborted()
    const now = waiting.filter((one) => one.time < from + seconds)
    waiting = waiting.filter((one) => one.time >= from + seconds)
    const context = offline(seconds + tailSeconds)
    const mixer = new Mixer(context, mix)
    mixer.output.connect(context.destination)
    const voice = new Voice(context, samples, mixer)
    // Notes are laid shortly before they sound: every one that waits costs time.
    const lay = (first: number, last: number) => {
      for (const { note, time, perTick } of now)
        if (time - from >= first && time - from < last) voice.sound(note, time - from, perTick)
    }
    lay(0, stepSeconds)
    for (let at = stepSeconds; at < seconds; at += stepSeconds) {
      // It stops a little before the notes that are laid there.
      void context.suspend(at - 0.1).then(() => {
        lay(at, at + stepSeconds)
        return context.resume()
      })
    }
    const rendered = await context.startRendering()
    const length = Math.round(seconds * sampleRate)
    const out = emptyPiece(length)
    const tail = emptyPiece(rendered.length - length)
    for (let channel = 0; channel < channels; channel++) {
      const heard = rendered.getChannelData(channel)
      const before = carried[channel]!
      const sum = (n: number) => (heard[n] ?? 0) + (before[n] ?? 0)
      for (let n = 0; n < length; n++) out[channel]![n] = limited(sum(n))
      for (let n = length; n < rendered.length; n++) tail[channel]![n - length] = sum(n)
    }
    carried = tail
    from += seconds
    take(out, from)
  }

  for await (const { performance } of chunks) {
    const perTick = 60 / (performance.tempo * performance.beatTicks * speed)
    for (const note of performance.notes) waiting.push({ note, time: until + note.tick * perTick, perTick })
    until += performance.end * perTick
    while (until - from > pieceSeconds) await piece(pieceSeconds)
  }
  await piece(until - from + after)
}

const emptyPiece = (length: number): Piece => Array.from({ length: channels }, () => new Float32Array(length))
