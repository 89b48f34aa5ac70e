import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { outputLatency } from './context'
import { delayOf, keep, kept } from './delay'
import { listInputs, microphone } from './inputs'
import { listKeys, midiInstrument } from './keysinputs'
import type { Side } from './sides'
import { keysSource, soundSource, type Source } from './source'

/** What stands for the simulated player among the inputs, as sound and as MIDI. */
export const standInName = 'stand-in'
export const standInKeysName = 'stand-in keys'
/** What the name of a MIDI instrument begins with. */
const keysPrefix = 'midi:'

/** What the side of a device is kept under. */
const sideKey = (device: string) => `undaris-side-${device || 'first'}`
function sideOf(device: string): Side {
  const side = Number(kept(sideKey(device)))
  return side === 1 || side === 2 ? side : 0
}

/** An input that can be chosen, by the name it is kept under. */
export interface InputOption {
  value: string
  text: string
  ownName?: boolean
}

/** The input that is chosen for all that listens: takes, drills, Play and the tuner. It is kept in this browser. */
export const useInputChoice = defineStore('input', () => {
  /** Empty for the input that the machine takes first. */
  const device = ref(kept('undaris-input') ?? '')
  watch(device, (now) => keep('undaris-input', now))

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

  /** The side of the input that is heard, as it is kept for the device. */
  const side = ref<Side>(sideOf(device.value))
  watch(device, (now) => (side.value = sideOf(now)))
  function chooseSide(to: Side) {
    side.value = to
    keep(sideKey(device.value), String(to))
  }

  const isStandIn = () => device.value === standInName || device.value === standInKeysName
  const isKeys = () => device.value.startsWith(keysPrefix)
  /** The input for sound that is chosen; none for the first, and where another kind is. */
  const soundDevice = () => (isKeys() || isStandIn() ? undefined : device.value || undefined)
  /**
   * Milliseconds from a moment of the audio clock until what is played to it has come in: as it was measured for the
   * chosen input, or what the browser says of its output. It is taken off once.
   */
  function delay() {
    if (isStandIn()) return 0
    const said = Math.round(1000 * outputLatency())
    return isKeys() ? said : (delayOf(device.value) ?? said)
  }

  /** Opens the input that is chosen; the simulated player is opened where its line is known. */
  async function open(): Promise<Source> {
    if (isKeys()) return keysSource(await midiInstrument(device.value.slice(keysPrefix.length)))
    return soundSource(await microphone(soundDevice(), side.value))
  }

  return { device, found, hasKeys, side, chooseSide, find, isStandIn, isKeys, soundDevice, delay, open }
})
