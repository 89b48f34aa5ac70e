import { audioContext } from './context'
import { SideWatch, type Side, type SideSums } from './sides'

/** Something that samples come from. */
export interface Input {
  /** Samples a second. */
  rate: number
  /** Begins; what comes is handed on in pieces. */
  begin(take: (samples: Float32Array) => void): void
  /** Seconds of sound that have come in by now. */
  seconds(): number
  end(): void
  /** Told when the device goes away. */
  gone?: (why: string) => void
  /** Told what is wrong with the two sides of a stereo input, and when it is right again. */
  sides?: (what: string) => void
  /** The time of the audio clock at its first sample, where it has one. */
  began?: () => number | undefined
}

/** Why there is no input, in words, and what can be done. */
export function inputTrouble(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  if (!window.isSecureContext)
    return 'This browser gives a microphone only to this machine’s own address or over TLS. Open Undaris at localhost'
  if (name === 'NotAllowedError')
    return 'The browser was not allowed to use the microphone. Allow it beside the address, and press again'
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return 'There is no such input. Plug the interface or the microphone in, and choose it'
  if (name === 'NotReadableError') return 'Another program holds the input. Close it, and press again'
  return `The input cannot be opened: ${error instanceof Error ? error.message : String(error)}`
}

/** The inputs that there are. Their names are known once one was allowed. */
export async function listInputs(): Promise<{ id: string; name: string }[]> {
  if (!navigator.mediaDevices) return []
  const all = await navigator.mediaDevices.enumerateDevices()
  return all
    .filter((device) => device.kind === 'audioinput' && device.deviceId)
    .map((device, n) => ({ id: device.deviceId, name: device.label || `input ${n + 1}` }))
}

/** A piece of sound as the worklet hands it on, and the frame of the audio clock that it begins at. */
interface Piece extends SideSums {
  frame: number
  samples: Float32Array
}

/** The module of the worklet is loaded once. */
let module: Promise<void> | undefined
function recorderModule(context: AudioContext) {
  module ??= context.audioWorklet.addModule('/recorder.js').catch((error: unknown) => {
    module = undefined
    throw error
  })
  return module
}

/**
 * Opens a microphone or an interface, as it is: nothing that a browser does to speech. Its first sample has the time of
 * the audio clock, which the band plays by too. However it fails, nothing stays open.
 */
export async function microphone(device: string | undefined, side: Side = 0): Promise<Input> {
  if (!navigator.mediaDevices) throw new DOMException('there is no microphone here', 'NotFoundError')
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: {
      ...(device ? { deviceId: { exact: device } } : {}),
      channelCount: { ideal: 2 },
      echoCancellation: false,
      noiseSuppression: false,
      autoGainControl: false,
    },
  })
  const release = () => stream.getTracks().forEach((track) => track.stop())
  try {
    const context = audioContext()
    await recorderModule(context)
    return inputOf(context, stream, side, release)
  } catch (error) {
    release()
    throw error
  }
}

function inputOf(context: AudioContext, stream: MediaStream, side: Side, release: () => void): Input {
  const source = new MediaStreamAudioSourceNode(context, { mediaStream: stream })
  const recorder = new AudioWorkletNode(context, 'recorder', {
    ...{ numberOfOutputs: 0, processorOptions: { side } },
  })
  const watched = new SideWatch(context.sampleRate)
  let began: number | undefined
  let warned = ''
  const input: Input = {
    rate: context.sampleRate,
    begin(take) {
      recorder.port.onmessage = ({ data }: MessageEvent<Piece>) => {
        began ??= data.frame / context.sampleRate
        const wrong = side === 0 ? watched.add(data, data.samples.length) : ''
        if (wrong !== warned) input.sides?.((warned = wrong))
        take(data.samples)
      }
      source.connect(recorder)
      void context.resume()
    },
    began: () => began,
    seconds: () => (began === undefined ? 0 : context.currentTime - began),
    end() {
      recorder.port.onmessage = null
      source.disconnect()
      for (const track of stream.getTracks()) track.onended = null
      release()
    },
  }
  for (const track of stream.getTracks())
    track.onended = () => input.gone?.('The input went away; what was played until then is kept')
  return input
}

/** The simulated player: samples of 16 bits that come as fast as they would be played. */
export function standIn(wav: ArrayBuffer): Input {
  const view = new DataView(wav)
  const rate = view.getUint32(24, true)
  const samples = new Float32Array((wav.byteLength - 44) / 2)
  for (let n = 0; n < samples.length; n++) samples[n] = view.getInt16(44 + 2 * n, true) / 32768
  let timer: ReturnType<typeof setInterval> | undefined
  let began = 0
  let sent = 0
  const input: Input = {
    rate,
    begin(take) {
      began = performance.now()
      timer = setInterval(() => {
        const due = Math.min(samples.length, Math.floor(((performance.now() - began) / 1000) * rate))
        if (due > sent) take(samples.slice(sent, due))
        sent = due
        if (sent === samples.length) {
          clearInterval(timer)
          input.gone?.('')
        }
      }, 20)
    },
    seconds: () => sent / rate,
    end: () => clearInterval(timer),
  }
  return input
}
