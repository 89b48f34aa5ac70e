import { audioContext } from './context'
import { limiter, Mixer, type Mix } from './mixer'
import { loadSamples, type LoadedSamples, type SoundName } from './samples'
import { Transport, type Chunk, type Clock, type Listener } from './transport'
import { fade, Voice } from './voice'

/** Something that is being played. */
export interface Playback {
  /** The chunk that is being played. */
  readonly present: Chunk
  /** What is heard now: the chunk, and the tick of it. */
  heard(): { chunk: Chunk; tick: number } | undefined
  /** What is sent to the sound device now, which is heard a moment later. */
  sent(): { chunk: Chunk; tick: number } | undefined
  setSpeed(speed: number): void
  askAnew(): void
  replace(old: Chunk, by: Chunk): void
  turnTo(chunk: Chunk, afterBar?: number): void
  /** Ends it; settled once it is silent. */
  stop(): Promise<void>
}

/** What sounds performances. There is one for the whole life of the page. */
export interface Engine {
  /** Allows sound. Browsers want it done while a key or the mouse is being pressed. */
  unlock(): void
  /** Loads what is needed to play; may be called again after it failed. */
  load(): Promise<LoadedSamples>
  play(
    first: Chunk,
    next: (before: Chunk) => Promise<Chunk | undefined>,
    listener: Listener,
    speed: number,
  ): Playback
  setMix(mix: Mix): void
}

/** Told of the sound device: whether it holds the sound up, and which sounds are missing. */
export interface DeviceListener {
  held(held: boolean): void
  missing(sounds: SoundName[]): void
}

/** The engine of a browser: the core has decided all that is to be heard. */
export function browserEngine(mix: Mix, device: DeviceListener): Engine {
  let context: AudioContext | undefined
  let samples: Promise<LoadedSamples> | undefined
  let mixer: Mixer | undefined
  let voice: Voice | undefined
  let playing = false

  function audio(): AudioContext {
    if (!context) {
      context = audioContext()
      // A device that goes away, or a call that takes it, holds the clock up; when it is
      // there again the sound goes on from where it was.
      context.onstatechange = () => {
        const running = context?.state === 'running'
        device.held(playing && !running)
        if (playing && !running) void context?.resume().catch(() => {})
      }
      const last = limiter(context)
      last.output.connect(context.destination)
      mixer = new Mixer(context, mix)
      mixer.output.connect(last.input)
    }
    return context
  }

  function load() {
    samples ??= loadSamples(audio()).then(
      (loaded) => {
        device.missing(loaded.missing)
        // What failed to load is loaded anew the next time.
        if (loaded.missing.length) samples = undefined
        return loaded
      },
      (error: unknown) => {
        samples = undefined
        throw error
      },
    )
    return samples
  }

  return {
    unlock: () => void audio().resume(),
    load: async () => {
      const loaded = await load()
      voice = new Voice(audio(), loaded, mixer!)
      return loaded
    },
    play(first, next, listener, speed) {
      if (!voice) throw new Error('the sounds are not loaded')
      const transport = new Transport(first, next, clockOf(audio()), voice.sound, listener, speed)
      transport.start()
      playing = true
      let painting = requestAnimationFrame(function paint() {
        transport.tell()
        painting = requestAnimationFrame(paint)
      })
      return {
        get present() {
          return transport.present
        },
        heard: () => transport.heard(),
        sent: () => transport.sent(),
        setSpeed: (to) => transport.setSpeed(to),
        askAnew: () => transport.askAnew(),
        replace: (old, by) => transport.replace(old, by),
        turnTo: (chunk, afterBar) => transport.turnTo(chunk, afterBar),
        stop: () => {
          playing = false
          cancelAnimationFrame(painting)
          transport.stop()
          return new Promise((silent) => setTimeout(silent, fade * 1000))
        },
      }
    },
    setMix(to) {
      mix = to
      mixer?.set(to)
    },
  }
}

/** The clock of an audio context. */
function clockOf(context: AudioContext): Clock {
  return {
    now: () => context.currentTime,
    latency: () => context.outputLatency || context.baseLatency || 0,
    every(seconds, run) {
      const timer = setInterval(run, seconds * 1000)
      return () => clearInterval(timer)
    },
    at(time, run) {
      // A source that says when it has ended is told by the audio clock itself, whether
      // the page is looked at or not.
      const source = new ConstantSourceNode(context, { offset: 0 })
      source.connect(context.destination)
      source.onended = () => {
        source.disconnect()
        run()
      }
      source.start()
      source.stop(Math.max(time, context.currentTime))
      return () => {
        source.onended = null
        source.stop()
        source.disconnect()
      }
    },
  }
}
