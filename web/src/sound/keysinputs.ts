import type { KeyEvent } from '../api/client'

/** A MIDI instrument, or what stands in for one. */
export interface KeysInput {
  begin(take: (events: KeyEvent[]) => void): void
  seconds(): number
  end(): void
  gone?: (why: string) => void
}

const noteOff = 0x80
const noteOn = 0x90
const wheel = 0xe0
/** How far the wheel goes either way, in cents, where nothing says another range. */
const wheelRange = 200

/** What a message says, so many seconds after the beginning; nothing where it is no note and no wheel. */
export function keyEventOf(message: Uint8Array, seconds: number): KeyEvent | undefined {
  const [status = 0, first = 0, second = 0] = message
  const channel = status & 0x0f
  switch (status & 0xf0) {
    case noteOn:
      return { seconds, channel, key: first, velocity: second }
    case noteOff:
      return { seconds, channel, key: first, velocity: 0 }
    case wheel:
      return { seconds, channel, wheel: true, cents: (((second << 7) | first) - 8192) * (wheelRange / 8192) }
  }
  return undefined
}

/**
 * The MIDI instruments that there are; none where the browser has none or does not allow it. The browser is asked to
 * allow it only where the player asks for them.
 */
export async function listKeys(ask: boolean): Promise<{ id: string; name: string }[]> {
  if (!navigator.requestMIDIAccess) return []
  const allowed = await navigator.permissions.query({ name: 'midi' as PermissionName }).catch(() => undefined)
  if (!ask && allowed?.state !== 'granted') return []
  const access = await navigator.requestMIDIAccess().catch(() => undefined)
  return [...(access?.inputs.values() ?? [])].map((one) => ({ id: one.id, name: one.name ?? 'MIDI' }))
}

/** Opens a MIDI instrument. */
export async function midiInstrument(id: string): Promise<KeysInput> {
  const access = await navigator.requestMIDIAccess()
  const port = access.inputs.get(id)
  if (!port) throw new DOMException('there is no such instrument', 'NotFoundError')
  let began = 0
  const input: KeysInput = {
    begin(take) {
      began = performance.now()
      port.onmidimessage = (message) => {
        const event = message.data && keyEventOf(message.data, (message.timeStamp - began) / 1000)
        if (event) take([event])
      }
    },
    seconds: () => (performance.now() - began) / 1000,
    end() {
      port.onmidimessage = null
      port.onstatechange = null
      void port.close()
    },
  }
  port.onstatechange = () => {
    if (port.state === 'disconnected')
      input.gone?.('The instrument went away; what was played until then is kept')
  }
  return input
}

/** The simulated player on keys: the events come as they would be played. */
export function standInKeys(all: KeyEvent[]): KeysInput {
  let timer: ReturnType<typeof setInterval> | undefined
  let began = 0
  let next = 0
  const input: KeysInput = {
    begin(take) {
      began = performance.now()
      timer = setInterval(() => {
        const now = (performance.now() - began) / 1000
        const from = next
        while (next < all.length && all[next]!.seconds <= now) next++
        if (next > from) take(all.slice(from, next))
        if (next === all.length) {
          clearInterval(timer)
          input.gone?.('')
        }
      }, 10)
    },
    seconds: () => (performance.now() - began) / 1000,
    end: () => clearInterval(timer),
  }
  return input
}
