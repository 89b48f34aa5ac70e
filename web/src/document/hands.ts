import { defineStore } from 'pinia'
import { computed, markRaw, ref, shallowRef } from 'vue'
import {
  answer,
  client,
  type Hands,
  type Instrument,
  type Player,
  type Problem,
  type Swap,
} from '../api/client'
import { drafts } from './browser'
import { Kept } from './kept'

/**
 * What the player plays with: the instrument, how far a hand spans, which places
 * it prefers, and how the neck is drawn. It is kept for every tune, and given to
 * every computation.
 */
export const useHands = defineStore('hands', () => {
  /** What of the settings could not be taken as they are kept. */
  const mended = ref<string[]>([])
  const kept = new Kept<Player, undefined>(
    {
      name: 'player',
      read: async () => {
        const got = await answer(client.GET('/api/player'))
        mended.value = got.mended ?? []
        return { id: 1, version: got.version, body: got.player }
      },
      create: () => Promise.reject(new Error('there is one player')),
      replace: async (_, player, version) => {
        const got = await answer(client.PUT('/api/player', { body: { version, player } }))
        mended.value = []
        return { id: 1, version: got.version, body: got.player }
      },
      show: async (player) => ({
        body: (await answer(client.POST('/api/compute/player', { body: player }))) as Player,
        shown: undefined,
      }),
      called: () => 'the neck and hands',
      drafts,
    },
    1,
  )
  const player = computed<Player>(() => kept.body.value ?? {})
  /** Why the last change was refused, and the instrument that would work. */
  const refusal = shallowRef<Problem>()

  const hands = computed<Hands>(() => {
    const { instrument, spanMm, swaps } = player.value
    return { instrument, spanMm, swaps }
  })

  const load = () => kept.load()

  /** Changes what is kept; false where it was refused, and then nothing is changed. */
  async function keep(change: Partial<Player>, label = 'neck and hands') {
    refusal.value = await kept.edit(label, async (now) => ({
      body: (await answer(client.POST('/api/compute/player', { body: { ...now, ...change } }))) as Player,
      shown: undefined,
    }))
    return refusal.value === undefined
  }

  /** Keeps an instrument as the player's own, and takes it up. */
  function keepOwn(own: Instrument) {
    const others = (player.value.instruments ?? []).filter((i) => i.name !== own.name)
    return keep({ instrument: own, instruments: [...others, own] }, `the instrument ${own.name}`)
  }
  function forgetOwn(name: string) {
    const instruments = (player.value.instruments ?? []).filter((i) => i.name !== name)
    const instrument = player.value.instrument?.name === name ? undefined : player.value.instrument
    return keep({ instruments, instrument }, `forget the instrument ${name}`)
  }

  const sameTone = (a: Swap, b: Swap) => a.sign === b.sign && a.form === b.form && a.degree === b.degree
  /** Moves a tone of a shape to another string, for wherever the shape comes back. */
  function swap(wish: Swap) {
    const all = player.value.swaps ?? []
    // A tone that was moved before is moved on from where it would lie.
    const before = all.find((s) => sameTone(s, wish) && s.to === wish.from)
    const from = before?.from ?? wish.from
    const rest = all.filter((s) => s !== before)
    return keep({ swaps: from === wish.to ? rest : [...rest, { ...wish, from }] }, 'move a tone')
  }
  /** Puts the tones of one shape back. */
  function putBack(sign: string, form: string) {
    return keep(
      { swaps: (player.value.swaps ?? []).filter((s) => s.sign !== sign || s.form !== form) },
      'put the tones back',
    )
  }

  return {
    player,
    hands,
    refusal,
    mended,
    kept: markRaw(kept),
    load,
    keep,
    keepOwn,
    forgetOwn,
    swap,
    putBack,
  }
})
