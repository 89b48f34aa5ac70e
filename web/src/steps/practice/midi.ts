import { onBeforeUnmount, ref, shallowRef } from 'vue'
import type { GivenPart } from '../../api/client'

/** A note that was struck on an instrument that is connected, or on the simulated one. */
export interface StruckNote {
  midi: number
  /** The channel it came on, from 1: the string, where each has its own. */
  channel: number
}

/** The name of the instrument that ships: it needs no hardware. */
export const simulated = 'simulated'

/** Reads a message of an instrument: the note that it strikes, or nothing. */
export function struckNote(message: ArrayLike<number>): StruckNote | undefined {
  const [status = 0, midi = 0, velocity = 0] = Array.from(message)
  if (status >> 4 !== 9 || velocity === 0 || midi > 127) return undefined
  return { midi, channel: (status & 15) + 1 }
}

/**
 * The part of an answer that a note is: a place where each string sends on a channel of its own, else a
 * pitch. A string that cannot sound it so low or so high gives the pitch.
 */
export function partOf(note: StruckNote, stringsApart: boolean, open: number[], frets: number): GivenPart {
  const low = stringsApart ? open[note.channel - 1] : undefined
  const fret = low === undefined ? -1 : note.midi - low
  return fret >= 0 && fret <= frets ? { place: { string: note.channel, fret } } : { midi: note.midi }
}

/** The instruments that are connected over MIDI, one of which may be listened to. */
export function useMidi(onNote: (note: StruckNote) => void) {
  const names = ref<string[]>([])
  const chosen = ref('')
  /** Each string sends on its own channel. */
  const stringsApart = ref(false)
  const problem = ref('')
  const access = shallowRef<MIDIAccess>()
  const listen = (event: MIDIMessageEvent) => {
    const note = event.data && struckNote(event.data)
    if (note) onNote(note)
  }
  const inputs = () => [...(access.value?.inputs.values() ?? [])]
  const silence = () =>
    inputs().forEach((input) => input.removeEventListener('midimessage', listen as EventListener))

  /** Asks the browser for what is connected. */
  async function find() {
    if (!navigator.requestMIDIAccess) {
      problem.value =
        'This browser hears no MIDI instruments; it needs a secure page, on this machine or over TLS.'
      return
    }
    try {
      problem.value = ''
      access.value = await navigator.requestMIDIAccess()
      const list = () => (names.value = inputs().map((input) => input.name ?? 'an instrument'))
      access.value.addEventListener('statechange', list)
      list()
      if (!names.value.length) problem.value = 'No MIDI instrument is connected.'
    } catch {
      problem.value = 'The browser does not let this page hear MIDI instruments.'
    }
  }
  function choose(name: string) {
    silence()
    chosen.value = name
    if (name === simulated) {
      stringsApart.value = true
      return
    }
    inputs()
      .find((input) => input.name === name)
      ?.addEventListener('midimessage', listen as EventListener)
  }
  /** Strikes a note of the simulated instrument. */
  const strike = (midi: number, channel: number) => {
    const note = struckNote([0x90 + channel - 1, midi, 100])
    if (note && chosen.value === simulated) onNote(note)
  }
  onBeforeUnmount(silence)
  return { names, chosen, stringsApart, problem, find, choose, strike }
}
