/** Writes sound as a WAV file: 16 bits a sample, as many channels as it has. */
export function wav(sound: AudioBuffer): Blob {
  const { numberOfChannels: channels, length, sampleRate } = sound
  const frame = channels * 2
  const view = new DataView(new ArrayBuffer(44 + length * frame))
  const text = (at: number, letters: string) =>
    [...letters].forEach((letter, n) => view.setUint8(at + n, letter.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, 36 + length * frame, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true) // the length of what follows up to "data"
  view.setUint16(20, 1, true) // plain samples
  view.setUint16(22, channels, true)
  view.setUint32(24, sampleRate, true)
  view.setUint32(28, sampleRate * frame, true)
  view.setUint16(32, frame, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, length * frame, true)
  const all = Array.from({ length: channels }, (_, channel) => sound.getChannelData(channel))
  for (let n = 0; n < length; n++) {
    all.forEach((samples, channel) => {
      const level = Math.max(-1, Math.min(1, samples[n] ?? 0))
      view.setInt16(44 + n * frame + channel * 2, Math.round(level * 32767), true)
    })
  }
  return new Blob([view], { type: 'audio/wav' })
}
