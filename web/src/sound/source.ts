import type { Input } from './inputs'
import type { KeysInput } from './keysinputs'
import { pcm16 } from './pieces'

/** What is heard or recorded: bytes that go to the server as they come. */
export interface Source {
  kind: 'sound' | 'keys'
  /** Samples a second; 0 for keys. */
  rate: number
  begin(send: (bytes: Uint8Array) => void): void
  /** Seconds that have come in by now. */
  seconds(): number
  end(): void
  /** Told when it goes away by itself. */
  whenGone(tell: (why: string) => void): void
  /** Told what is wrong with its two sides; empty when nothing is any more. */
  whenSides?(tell: (what: string) => void): void
}

/** Samples as a source. */
export const soundSource = (input: Input): Source => ({
  ...{ kind: 'sound', rate: input.rate, seconds: input.seconds, end: input.end },
  begin: (send) => input.begin((samples) => send(pcm16(samples))),
  whenGone: (tell) => (input.gone = tell),
  whenSides: (tell) => (input.sides = tell),
})

/** What a MIDI instrument sends as a source: a line of JSON an event. */
export const keysSource = (input: KeysInput): Source => ({
  ...{ kind: 'keys', rate: 0, seconds: input.seconds, end: input.end },
  begin(send) {
    const text = new TextEncoder()
    input.begin((events) => send(text.encode(events.map((event) => `${JSON.stringify(event)}\n`).join(''))))
  },
  whenGone: (tell) => (input.gone = tell),
})
