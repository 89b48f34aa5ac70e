/*
 * Takes the samples of the input and hands them on in pieces of about 20 ms. Each piece says at which frame of the audio
 * clock it begins; frames that the browser has left out are silence, so that what comes after lies where it belongs.
 * For the sides of the input it says how loud they are, and how alike.
 */
const mostSilence = 10

class Recorder extends AudioWorkletProcessor {
  constructor(options) {
    super()
    this.side = options.processorOptions.side
    this.length = Math.max(128, Math.round(sampleRate / 50 / 128) * 128)
    this.begin(0)
  }

  begin(frame) {
    this.piece = new Float32Array(this.length)
    this.filled = 0
    this.frame = frame
    this.loud = [0, 0]
    this.alike = 0
  }

  put(sample) {
    this.piece[this.filled++] = sample
    if (this.filled < this.length) return
    const { frame, piece, loud, alike } = this
    this.port.postMessage({ frame, samples: piece, loud, alike }, [piece.buffer])
    this.begin(frame + this.length)
  }

  process(inputs) {
    const sides = inputs[0]
    const count = sides.length ? sides[0].length : 128
    if (this.next === undefined) this.frame = this.next = currentFrame
    // A busy browser says the same frame several times over and then the right one: only a clock ahead of what came
    // has left something out.
    const missing = Math.max(0, currentFrame - this.next)
    for (let n = 0; n < Math.min(missing, mostSilence * sampleRate); n++) this.put(0)
    this.next += missing + count
    const [left, right = left] = sides
    for (let n = 0; n < count; n++) {
      if (!left) {
        this.put(0)
        continue
      }
      this.loud[0] += left[n] * left[n]
      this.loud[1] += right[n] * right[n]
      this.alike += left[n] * right[n]
      this.put(this.side === 1 ? left[n] : this.side === 2 ? right[n] : (left[n] + right[n]) / 2)
    }
    return true
  }
}
registerProcessor('recorder', Recorder)
