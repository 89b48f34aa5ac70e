import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { answer, client, Problem, type Hands, type Instrument, type Player, type Swap } from '../api/client'

/**
 * What the player plays with: the instrument, how far a hand spans, which places
 * it prefers, and how the neck is drawn. It is kept for every tune, and given to
 * every computation.
 */
export const useHands = defineStore('hands', () => {
  const player = shallowRef<Player>({})
  const version = ref(0)
  /** Why the last change was refused, and the instrument that would work. */
  const refusal = shallowRef<Problem>()
  let saving: Promise<unknown> = Promise.resolve()

  const hands = computed<Hands>(() => {
    const { instrument, spanMm, swaps } = player.value
    return { instrument, spanMm, swaps }
  })

  async function load() {
    const kept = await answer(client.GET('/api/player'))
    player.value = kept.player
    version.value = kept.version
  }

  /** Changes what is kept; false where it was refused, and then nothing is changed. */
  function keep(change: Partial<Player>) {
    const next = saving.then(() => keepNow({ ...player.value, ...change }))
    saving = next
    return next
  }
  async function keepNow(next: Player) {
    try {
      const kept = await answer(client.PUT('/api/player', { body: { version: version.value, player: next } }))
      player.value = kept.player
      version.value = kept.version
      refusal.value = undefined
      return true
    } catch (error) {
      refusal.value = error instanceof Problem ? error : new Problem(0, String(error))
      // Changed in another window: take what stands there, so that the next change is of that.
      if (refusal.value.status === 412) await load()
      return false
    }
  }

  /** Keeps an instrument as the player's own, and takes it up. */
  function keepOwn(own: Instrument) {
    const others = (player.value.instruments ?? []).filter((i) => i.name !== own.name)
    return keep({ instrument: own, instruments: [...others, own] })
  }
  function forgetOwn(name: string) {
    const instruments = (player.value.instruments ?? []).filter((i) => i.name !== name)
    const instrument = player.value.instrument?.name === name ? undefined : player.value.instrument
    return keep({ instruments, instrument })
  }

  const sameTone = (a: Swap, b: Swap) => a.sign === b.sign && a.form === b.form && a.degree === b.degree
  /** Moves a tone of a shape to another string, for wherever the shape comes back. */
  function swap(wish: Swap) {
    const all = player.value.swaps ?? []
    // A tone that was moved before is moved on from where it would lie.
    const before = all.find((s) => sameTone(s, wish) && s.to === wish.from)
    const from = before?.from ?? wish.from
    const rest = all.filter((s) => s !== before)
    return keep({ swaps: from === wish.to ? rest : [...rest, { ...wish, from }] })
  }
  /** Puts the tones of one shape back. */
  function putBack(sign: string, form: string) {
    return keep({ swaps: (player.value.swaps ?? []).filter((s) => s.sign !== sign || s.form !== form) })
  }

  return { player, hands, refusal, load, keep, keepOwn, forgetOwn, swap, putBack }
})
