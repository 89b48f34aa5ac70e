import { sampleRate, type Piece } from './render'

const channels = 2
const bytesPerFrame = channels * 2
const headBytes = 44

/** A piece of sound as 16-bit samples, channel by channel in each frame. */
export function frames(piece: Piece): ArrayBuffer {
  const length = piece[0]?.length ?? 0
  const out = new Int16Array(length * channels)
  piece.forEach((samples, channel) => {
    for (let n = 0; n < length; n++) out[n * channels + channel] = Math.round((samples[n] ?? 0) * 32767)
  })
  return out.buffer
}

/** A WAV file of pieces of frames, 16 bits a sample in two channels. */
export function wav(pieces: ArrayBuffer[]): Blob {
  const length = pieces.reduce((sum, piece) => sum + piece.byteLength, 0)
  const view = new DataView(new ArrayBuffer(headBytes))
  const text = (at: number, letters: string) =>
    [...letters].forEach((letter, n) => view.setUint8(at + n, letter.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, headBytes - 8 + length, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true) // the length of what follows up to "data"
  view.setUint16(20, 1, true) // plain samples
  view.setUint16(22, channels, true)
  view.setUint32(24, sampleRate, true)
  view.setUint32(28, sampleRate * bytesPerFrame, true)
  view.setUint16(32, bytesPerFrame, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, length, true)
  return new Blob([view, ...pieces], { type: 'audio/wav' })
}
