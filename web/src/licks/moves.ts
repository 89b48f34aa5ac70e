import { computed, ref, shallowRef } from 'vue'
import { answer, client, type KeptLick } from '../api/client'
import { useAnswer } from '../tune/answer'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/**
 * A lick over every chord of the tune, by each way there is to move it; which of them
 * is looked at is in the address, as the chord and the number of the way.
 */
export function useMoves(lick: () => KeptLick | undefined, wanted: () => boolean, kept: () => Promise<void>) {
  const tune = useTune()
  const view = useView()
  const { answer: moves, refusal } = useAnswer(
    () => {
      const position = view.position.value?.id
      const from = lick()
      if (!wanted() || !tune.chart || !from || !position) return undefined
      return { chart: tune.chart, hands: tune.hands, position, lick: from.lick }
    },
    (body) => answer(client.POST('/api/compute/moves', { body })),
  )

  const choice = computed(() => {
    const [chord, way] = view.text('move').split('|')
    const all = moves.value?.chords ?? []
    const named = (name: string | undefined) => all.find((one) => one.chord === name)
    const over = named(chord) ?? named(view.moment.value?.chord) ?? all[0]
    return { over, way: Math.min(Number(way) || 0, (moves.value?.ways.length ?? 1) - 1) }
  })
  const chosen = computed(() => choice.value.over?.moves[choice.value.way])
  const choose = (chord: string, way: number) => view.set({ move: `${chord}|${way}` })

  /** The lick that was kept last, to be taken back. */
  const last = shallowRef<KeptLick>()
  const said = ref('')
  async function keep(own = chosen.value?.lick) {
    if (!own) return
    try {
      last.value = await answer(client.POST('/api/licks', { body: own }))
      said.value = `Kept as ${own.name}.`
      await kept()
    } catch (error) {
      tune.tell(error)
    }
  }
  async function takeBack() {
    if (!last.value) return
    const { id, version } = last.value
    try {
      await answer(client.DELETE('/api/licks/{id}', { params: { path: { id }, query: { version } } }))
      said.value = ''
      last.value = undefined
      await kept()
    } catch (error) {
      tune.tell(error)
    }
  }

  return { moves, refusal, choice, chosen, choose, keep, takeBack, said, last }
}

export type MovesWork = ReturnType<typeof useMoves>
