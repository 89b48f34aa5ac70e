/* Takes the samples of the input and hands them on in pieces of about 20 ms. */
class Recorder extends AudioWorkletProcessor {
  constructor() {
    super()
    this.piece = new Float32Array(Math.max(128, Math.round(sampleRate / 50 / 128) * 128))
    this.filled = 0
  }

  process(inputs) {
    const channels = inputs[0]
    const count = channels.length ? channels[0].length : 128
    for (let n = 0; n < count; n++) {
      let sum = 0
      for (const channel of channels) sum += channel[n]
      this.piece[this.filled++] = channels.length ? sum / channels.length : 0
      if (this.filled === this.piece.length) {
        this.port.postMessage(this.piece.slice())
        this.filled = 0
      }
    }
    return true
  }
}
registerProcessor('recorder', Recorder)
