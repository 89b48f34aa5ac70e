import { defineStore } from 'pinia'
import { onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import { answer, client } from '../api/client'
import type { components } from '../api/schema'
import { useTune } from '../tune/tune'
import type { Engine } from './engine'

type Request = components['schemas']['PerformanceRequest']
type Source = () => Request | undefined

/** What is heard: it asks the core for a performance and sounds it. */
export const usePlayer = defineStore('player', () => {
  const state = ref<'silent' | 'loading' | 'playing'>('silent')
  /** The bar and the event of the line that are being heard. */
  const bar = ref<number>()
  const event = ref<number>()
  const source = shallowRef<Source>()
  let engine: Promise<Engine> | undefined
  let asked = 0

  /** Plays what the step on screen is about, or what is asked for here. */
  async function play(request = source.value?.()) {
    if (!request) return
    const mine = ++asked
    state.value = 'loading'
    try {
      engine ??= import('./engine').then((module) => module.Engine.load())
      const [performance, sounding] = await Promise.all([
        answer(client.POST('/api/compute/performance', { body: { hands: useTune().hands, ...request } })),
        engine,
      ])
      if (mine !== asked) return
      await sounding.play(performance, {
        bar: (number) => (bar.value = number),
        event: (index) => (event.value = index),
        end: stop,
      })
      state.value = 'playing'
      useTune().practised()
    } catch (error) {
      engine = undefined
      stop()
      useTune().tell(error)
    }
  }

  function stop() {
    asked++
    state.value = 'silent'
    bar.value = undefined
    event.value = undefined
    void engine?.then((sounding) => sounding.stop())
  }

  const toggle = () => (state.value === 'silent' ? play() : stop())

  return { state, bar, event, source, play, toggle, stop }
})

/** Makes space play what the step on screen is about. */
export function useSource(what: Source) {
  const player = usePlayer()
  onMounted(() => (player.source = what))
  onBeforeUnmount(() => {
    if (player.source === what) player.source = undefined
    player.stop()
  })
}
