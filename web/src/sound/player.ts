import { defineStore } from 'pinia'
import { computed, onBeforeUnmount, onMounted, shallowRef } from 'vue'
import { answer, client } from '../api/client'
import type { components } from '../api/schema'
import { useTune } from '../document/tune'
import { browserEngine } from './engine'
import { createPlayer } from './machine'
import { wav } from './wav'

export type PerformanceRequest = components['schemas']['PerformanceRequest']
type Source = () => PerformanceRequest | undefined

/** Who asks for notes that are only to be shown. */
const glimpse = 'shown notes'

/** What is heard: it asks the core for a performance and sounds it. */
export const usePlayer = defineStore('player', () => {
  const tune = useTune()
  const engine = browserEngine()
  const arrange = (request: PerformanceRequest) =>
    answer(client.POST('/api/compute/performance', { body: { hands: tune.hands, ...request } }))
  const machine = createPlayer(engine, arrange, tune.tell)
  const { state, bar, loop, speed } = machine

  /** What the step on screen would play, and which step that is. */
  const source = shallowRef<{ who: string; what: Source }>()
  /** Which note of the line is heard, if it is one of the step on screen. */
  const event = computed(() => (machine.owner.value === source.value?.who ? machine.event.value : undefined))

  /** Plays what the step on screen is about, or what is asked for here. */
  function play(request = source.value?.what()) {
    if (!request) return
    tune.practised()
    return machine.play(request, source.value?.who)
  }

  /** Sounds a few notes to show what they are; it is over soon, and nothing that need be stopped. */
  function show(request: PerformanceRequest) {
    tune.practised()
    return machine.play(request, glimpse)
  }

  /** Takes what the step on screen is about away as a sound file. */
  async function take(name: string) {
    const request = source.value?.what()
    if (!request) return
    try {
      const sound = await engine.render(await arrange(request), speed.value / 100)
      const link = document.createElement('a')
      link.download = `${name}.wav`
      link.href = URL.createObjectURL(wav(sound))
      link.click()
      setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
    } catch (error) {
      tune.tell(error)
    }
  }

  const silent = computed(
    () => state.value === 'silent' || state.value === 'stopping' || machine.owner.value === glimpse,
  )
  const toggle = () => void (silent.value ? play() : machine.stop())

  return {
    ...{ state, silent, bar, event, loop, speed, source },
    ...{ play, show, toggle, take, stop: machine.stop, setLoop: machine.setLoop, setSpeed: machine.setSpeed },
  }
})

/** Makes space play what a step is about. What sounds goes on when the step is left. */
export function useSource(who: string, what: Source) {
  const player = usePlayer()
  const mine = { who, what }
  onMounted(() => (player.source = mine))
  onBeforeUnmount(() => {
    if (player.source === mine) player.source = undefined
  })
}
