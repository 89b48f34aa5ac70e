import { computed } from 'vue'
import { answer, client, type Place } from '../api/client'
import { readPlaces, placesText } from '../licks/tab'
import { samePlace } from '../neck/geometry'
import { useAnswer } from '../tune/answer'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/** What the bench of the Change step shows, as the address holds it. */
export const benches = [
  { name: 'ways', title: 'Ways across' },
  { name: 'path', title: 'Target path' },
  { name: 'bends', title: 'Bends' },
  { name: 'count', title: 'Count back' },
  { name: 'box', title: 'Your box' },
] as const

/** How approaches are sorted: easiest, shortest, or strongest pull first. */
export const sorts = ['ease', 'tension', 'length'] as const

/**
 * The change under work: the tones and moves of it, the place the player is at, and
 * the target. What is chosen is in the address.
 */
export function useChange() {
  const tune = useTune()
  const view = useView()

  const bench = computed(() => benches.find((b) => b.name === view.text('bench'))?.name ?? 'ways')
  const school = computed(() => view.text('school') || tune.choices?.schools[0] || '')
  const sort = computed(() => sorts.find((s) => s === view.text('sort')) ?? 'ease')

  /** What every question about the change begins with. */
  const about = computed(() => {
    const { chart, hands } = tune
    const change = view.change.value?.tick
    const position = view.position.value?.id
    return chart && change !== undefined && position ? { chart, hands, change, position } : undefined
  })

  const { answer: shown, refusal } = useAnswer(
    () => about.value && { ...about.value, school: school.value },
    (body) => answer(client.POST('/api/compute/change', { body })),
  )

  const here = computed<Place | undefined>(() => readPlaces(view.text('here'))[0])
  const { answer: near, refusal: nowhere } = useAnswer(
    () =>
      about.value && here.value ? { ...about.value, school: school.value, here: here.value } : undefined,
    (body) => answer(client.POST('/api/compute/landings', { body })),
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

  const beats = computed(() => Number(view.text('beats')) || undefined)
  const { answer: into, refusal: noTarget } = useAnswer(
    () => {
      if (bench.value !== 'ways' || !about.value || !target.value) return undefined
      const { string, fret } = target.value
      const { subdivision } = view
      return {
        ...about.value,
        target: { string, fret },
        subdivision: subdivision.value,
        beats: beats.value,
      }
    },
    (body) => answer(client.POST('/api/compute/approaches', { body })),
  )

  /** Clicking the neck says "I am here"; a tone of the arriving chord is taken as the target, too. */
  function stand(place: Place) {
    const isTarget = shown.value?.to.some((tone) => samePlace(tone, place))
    return view.set({
      here: placesText([place]),
      ...(isTarget ? { target: placesText([place]) } : {}),
    })
  }
  const aim = (place: Place) => view.set({ target: placesText([place]) })

  return {
    ...{ bench, school, sort, about, shown, refusal, here, near, nowhere, target, into, noTarget, beats },
    ...{ stand, aim },
  }
}

export type ChangeWork = ReturnType<typeof useChange>
