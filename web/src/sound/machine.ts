import { ref, shallowRef } from 'vue'
import type { Performance } from '../api/client'
import type { Engine, Playback } from './engine'

/** What a player is doing. */
export type PlayerState = 'silent' | 'loading' | 'playing' | 'stopping'

/**
 * Plays one thing at a time. Whatever is asked last holds: what was still being loaded is
 * forgotten, what sounds is stopped first, and `stop` always leads to silence.
 */
export function createPlayer<Request>(
  engine: Engine,
  arrange: (request: Request) => Promise<Performance>,
  tell: (error: unknown) => void,
) {
  const state = ref<PlayerState>('silent')
  /** The bar, and the event of the line, that are being heard. */
  const bar = ref<number>()
  const event = ref<number>()
  /** Who asked for what is playing. */
  const owner = shallowRef<string>()
  const loop = ref(false)
  /** In percent of the written tempo. */
  const speed = ref(100)
  let playback: Playback | undefined
  let turn = 0

  function silence() {
    bar.value = undefined
    event.value = undefined
    const ending = playback
    playback = undefined
    return ending?.stop()
  }

  /** Plays a request of someone; called while a key or the mouse is being pressed. */
  async function play(request: Request, who = '') {
    engine.unlock()
    const mine = ++turn
    void silence()
    state.value = 'loading'
    owner.value = who
    try {
      const [performance] = await Promise.all([arrange(request), engine.load()])
      if (mine !== turn) return
      playback = engine.play(
        performance,
        {
          bar: (number) => mine === turn && (bar.value = number),
          event: (index) => mine === turn && (event.value = index),
          end: () => {
            if (mine === turn) void stop()
          },
        },
        speed.value / 100,
        loop.value,
      )
      state.value = 'playing'
    } catch (error) {
      if (mine !== turn) return
      state.value = 'silent'
      tell(error)
    }
  }

  async function stop() {
    const mine = ++turn
    if (state.value === 'silent') return
    state.value = 'stopping'
    await silence()
    if (mine === turn) state.value = 'silent'
  }

  function setLoop(on: boolean) {
    loop.value = on
    playback?.setLoop(on)
  }
  function setSpeed(percent: number) {
    speed.value = percent
    playback?.setSpeed(percent / 100)
  }

  return { state, bar, event, owner, loop, speed, play, stop, setLoop, setSpeed }
}
