import { computed } from 'vue'
import { remembered, useAnswer } from '../../api/ask'
import { answer, client } from '../../api/client'
import { useView } from '../../address/view'
import type { LicksQuery } from './address'
import type { LickQuestion } from './questions'

/**
 * A lick over every chord of the tune, by each way there is to move it; which of them
 * is looked at is in the address, as the chord and the number of the way.
 */
export function useMoves({ about }: LickQuestion, query: LicksQuery, wanted: () => boolean) {
  const view = useView()
  const { answer: moves, refusal } = useAnswer(
    () => (wanted() ? about.value : undefined),
    remembered((body, signal) => answer(client.POST('/api/compute/lick/moves', { body, signal }))),
  )
  const choice = computed(() => {
    const [chord, way] = query.move.value.split('|')
    const all = moves.value?.chords ?? []
    const named = (name: string | undefined) => all.find((one) => one.chord === name)
    const over = named(chord) ?? named(view.picked.value?.chord) ?? all[0]
    return { over, way: Math.min(Math.max(Number(way) || 0, 0), (moves.value?.methods.length ?? 1) - 1) }
  })
  const chosen = computed(() => choice.value.over?.moves[choice.value.way])
  const choose = (chord: string, way: number) => query.set({ move: `${chord}|${way}` })
  return { moves, refusal, choice, chosen, choose }
}

export type MovesWork = ReturnType<typeof useMoves>
