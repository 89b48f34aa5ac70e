import type { Performance } from '../api/client'
import { Transport, type Clock, type Listener } from './transport'
import { fade, loadSamples, Voice, type Buffers } from './voice'

/** Seconds that are rendered past the end, for the last notes to die away in. */
const tail = 0.5
const sampleRate = 44100

/** Something that is being played. */
export interface Playback {
  setSpeed(speed: number): void
  setLoop(loop: boolean): void
  /** Ends it; settled once it is silent. */
  stop(): Promise<void>
}

/** What sounds performances. There is one for the whole life of the page. */
export interface Engine {
  /** Allows sound. Browsers want it done while a key or the mouse is being pressed. */
  unlock(): void
  /** Loads what is needed to play; may be called again after it failed. */
  load(): Promise<unknown>
  play(performance: Performance, listener: Listener, speed: number, loop: boolean): Playback
  /** What a performance sounds like from its first tick on, computed as fast as can be. */
  render(performance: Performance, speed: number): Promise<AudioBuffer>
}

/** The engine of a browser: the core has decided all that is to be heard. */
export function browserEngine(): Engine {
  let context: AudioContext | undefined
  let samples: Promise<Buffers> | undefined
  let voice: Voice | undefined

  function audio(): AudioContext {
    context ??= new AudioContext()
    return context
  }

  function load() {
    samples ??= loadSamples(audio()).catch((error: unknown) => {
      // What failed to load is loaded anew the next time.
      samples = undefined
      throw error
    })
    return samples
  }

  return {
    unlock: () => void audio().resume(),
    load: async () => (voice ??= new Voice(audio(), await load())),
    play(performance, listener, speed, loop) {
      if (!voice) throw new Error('the sounds are not loaded')
      const transport = new Transport(performance, clockOf(audio()), voice.sound, listener, speed, loop)
      transport.start()
      let painting = requestAnimationFrame(function paint() {
        transport.tell()
        painting = requestAnimationFrame(paint)
      })
      return {
        setSpeed: (to) => transport.setSpeed(to),
        setLoop: (on) => transport.setLoop(on),
        stop: () => {
          cancelAnimationFrame(painting)
          transport.stop()
          return new Promise((silent) => setTimeout(silent, fade * 1000))
        },
      }
    },
    async render(performance, speed) {
      const buffers = await load()
      const perTick = 60 / (performance.tempo * performance.beatTicks * speed)
      const seconds = performance.end * perTick + tail
      const offline = new OfflineAudioContext(2, Math.ceil(seconds * sampleRate), sampleRate)
      const apart = new Voice(offline, buffers)
      for (const note of performance.notes) apart.sound(note, note.tick * perTick, perTick)
      return offline.startRendering()
    },
  }
}

/** The clock of an audio context. */
function clockOf(context: AudioContext): Clock {
  return {
    now: () => context.currentTime,
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
