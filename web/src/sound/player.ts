import { defineStore } from 'pinia'
import { onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'
import { answer, client } from '../api/client'
import type { components } from '../api/schema'
import { useTune } from '../tune/tune'
import type { Engine } from './engine'
import { wav } from './wav'

type Request = components['schemas']['PerformanceRequest']
type Source = () => Request | undefined

/** What is heard: it asks the core for a performance and sounds it. */
export const usePlayer = defineStore('player', () => {
  const state = ref<'silent' | 'loading' | 'playing'>('silent')
  /** The bar and the event of the line that are being heard. */
  const bar = ref<number>()
  const event = ref<number>()
  /** Whether what is played begins again at its end, and how fast it goes, in percent. */
  const loop = ref(false)
  const speed = ref(100)
  const source = shallowRef<Source>()
  let engine: Promise<Engine> | undefined
  let asked = 0

  /** What sounds, and the engine that sounds it, loaded when it is first wanted. */
  function arranged(request: Request) {
    engine ??= import('./engine').then((module) => module.Engine.load())
    return Promise.all([
      answer(
        client.POST('/api/compute/performance', {
          body: { hands: useTune().hands, speed: speed.value, ...request },
        }),
      ),
      engine,
    ])
  }

  /** Plays what the step on screen is about, or what is asked for here. */
  async function play(request = source.value?.()) {
    if (!request) return
    const mine = ++asked
    state.value = 'loading'
    try {
      const [performance, sounding] = await arranged(request)
      if (mine !== asked) return
      await sounding.play(performance, {
        bar: (number) => (bar.value = number),
        event: (index) => (event.value = index),
        end: stop,
        again: () => loop.value,
      })
      state.value = 'playing'
      useTune().practised()
    } catch (error) {
      engine = undefined
      stop()
      useTune().tell(error)
    }
  }

  /** Takes what the step on screen is about away as a sound file. */
  async function take(name: string) {
    const request = source.value?.()
    if (!request) return
    try {
      const [performance, sounding] = await arranged(request)
      const link = document.createElement('a')
      link.download = `${name}.wav`
      link.href = URL.createObjectURL(wav(await sounding.render(performance)))
      link.click()
      setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
    } catch (error) {
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

  return { state, bar, event, loop, speed, source, play, toggle, take, stop }
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
