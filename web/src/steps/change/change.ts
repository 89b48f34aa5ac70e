import { computed } from 'vue'
import { answer, client, type ApproachesRequest, type ChangeRequest, type Place } from '../../api/client'
import { samePlace } from '../../neck/geometry'
import { remembered, useAnswer } from '../../api/ask'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { useChangeQuery } from './address'

const askChange = remembered((body: ChangeRequest, signal) =>
  answer(client.POST('/api/compute/change', { body, signal })),
)
const askApproaches = remembered((body: ApproachesRequest, signal) =>
  answer(client.POST('/api/compute/change/approaches', { body, signal })),
)

/**
 * The change under work: the tones and moves of it, the place the player is at, and
 * the target. What is chosen is in the address.
 */
export function useChange() {
  const tune = useTune()
  const view = useView()

  const query = useChangeQuery()
  const { bench, sort, here, beats } = query
  const { strategy } = view

  /** What every question about the change begins with. */
  const about = computed(() => {
    const { music: chart, hands } = tune
    const change = view.change.value?.tick
    const position = view.position.value?.id
    return chart && change !== undefined && position ? { chart, hands, change, position } : undefined
  })

  const { answer: shown, refusal } = useAnswer(
    () => about.value && { ...about.value, strategy: strategy.value },
    askChange,
  )

  const { answer: near, refusal: nowhere } = useAnswer(
    () =>
      about.value && here.value ? { ...about.value, strategy: strategy.value, here: here.value } : undefined,
    remembered((body, signal) => answer(client.POST('/api/compute/change/nearby', { body, signal }))),
  )

  /** The target: the one chosen, as long as the arriving chord has it there, or that of the best move. */
  const target = computed<Place | undefined>(() => {
    // Until the new change is here, the tones are still those of the one before.
    if (shown.value?.tick !== about.value?.change || shown.value?.position.id !== about.value?.position)
      return undefined
    const tones = shown.value?.to ?? []
    const wanted = view.target.value
    return tones.find((tone) => wanted && samePlace(tone, wanted)) ?? shown.value?.moves[0]?.to ?? tones[0]
  })

  const { answer: into, refusal: noTarget } = useAnswer(() => {
    if (bench.value !== 'moves' || !about.value || !target.value) return undefined
    const { string, fret } = target.value
    const { subdivision } = view
    return {
      ...about.value,
      target: { string, fret },
      subdivision: subdivision.value,
      beats: beats.value,
    }
  }, askApproaches)

  /** Clicking the neck says "I am here"; a tone of the arriving chord is taken as the target, too. */
  function setHere(place: Place) {
    const isTarget = shown.value?.to.some((tone) => samePlace(tone, place))
    void query.set({ here: placeOf(place) })
    return isTarget ? view.set({ target: placeOf(place) }) : undefined
  }
  const aim = (place: Place) => view.set({ target: placeOf(place) })

  return {
    ...{ bench, strategy, sort, about, shown, refusal, here, near, nowhere, target, into, noTarget, beats },
    ...{ query, setHere, aim },
  }
}

/** The place alone, of something that lies there. */
const placeOf = ({ string, fret }: Place) => ({ string, fret })

export type ChangeWork = ReturnType<typeof useChange>
