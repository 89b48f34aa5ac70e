import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { delayOf } from './delay'
import { listInputs, microphone } from './inputs'
import { listKeys, midiInstrument } from './keysinputs'
import { keysSource, soundSource, type Source } from './source'

/** What stands for the simulated player among the inputs, as sound and as MIDI. */
export const standInName = 'stand-in'
export const standInKeysName = 'stand-in keys'
/** What the name of a MIDI instrument begins with. */
const keysPrefix = 'midi:'

/** An input that can be chosen, by the name it is kept under. */
export interface InputOption {
  value: string
  text: string
  ownName?: boolean
}

/** The input that is chosen for all that listens: takes, drills, Play and the tuner. It is kept in this browser. */
export const useInputChoice = defineStore('input', () => {
  /** Empty for the input that the machine takes first. */
  const device = ref(localStorage.getItem('undaris-input') ?? '')
  watch(device, (now) => localStorage.setItem('undaris-input', now))

  const found = ref<InputOption[]>([])
  const hasKeys = ref(false)
  /** Looks for inputs; for MIDI instruments only where the browser allows it already, or `askForKeys`. */
  async function find(askForKeys = false) {
    const keys = await listKeys(askForKeys)
    hasKeys.value = keys.length > 0
    found.value = [
      ...(await listInputs()).map(({ id, name }) => ({ value: id, text: name, ownName: true })),
      ...keys.map(({ id, name }) => ({ value: keysPrefix + id, text: name, ownName: true })),
    ]
  }
  navigator.mediaDevices?.addEventListener('devicechange', () => void find())

  const isStandIn = () => device.value === standInName || device.value === standInKeysName
  const isKeys = () => device.value.startsWith(keysPrefix)
  /** The input for sound that is chosen; none for the first, and where another kind is. */
  const soundDevice = () => (isKeys() || isStandIn() ? undefined : device.value || undefined)
  /** Milliseconds that the chosen input is late, as it was measured. */
  const delay = () => (isKeys() || isStandIn() ? 0 : delayOf(device.value))

  /** Opens the input that is chosen; the simulated player is opened where its line is known. */
  async function open(): Promise<Source> {
    if (isKeys()) return keysSource(await midiInstrument(device.value.slice(keysPrefix.length)))
    return soundSource(await microphone(soundDevice()))
  }

  return { device, found, hasKeys, find, isStandIn, isKeys, soundDevice, delay, open }
})
