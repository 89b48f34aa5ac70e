import { computed, shallowRef, watch } from 'vue'
import { remembered, useAnswer } from '../../api/ask'
import { answer, client, Problem, type ChordRequest, type ChordView, type Layout } from '../../api/client'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { useMapQuery } from './address'
import { readLayout } from './layouts'

const askChord = remembered((body: ChordRequest, signal) =>
  answer(client.POST('/api/compute/chord', { body, signal })),
)

/**
 * The chord under work in the position under work, as the server lays it out,
 * with everything that can be laid over it; what is chosen is in the address.
 */
export function useChord() {
  const tune = useTune()
  const view = useView()
  const shown = shallowRef<ChordView>()
  const refusal = shallowRef<Problem>()

  const query = useMapQuery()
  const { slide, full, over, label } = query
  const hidden = computed(() => new Set(query.hide.value.split(' ').filter(Boolean)))
  const layout = computed<Layout>(() => readLayout(query.layout.value))

  const next = computed(() => {
    const tick = view.moment.value?.next
    const change = tune.read?.changes.find((one) => one.tick === tick)
    return change?.stays ? undefined : change?.arriving.chord
  })

  const { answer: found, problem } = useAnswer(
    () => {
      const chord = view.moment.value?.chord
      const position = view.position.value
      if (!tune.music || !chord || !position) return undefined
      const sliding = slide.value && Boolean(position.form)
      return {
        body: {
          ...{ chart: tune.music, hands: tune.hands, chord, next: next.value, at: view.moment.value?.tick },
          ...{ position: sliding ? position.form : position.id, slide: sliding },
        },
        layout: layout.value,
      }
    },
    async ({ body, layout }, signal) => {
      const ask = (how: Layout) => askChord({ ...body, layout: how }, signal)
      try {
        return { view: await ask(layout), refused: undefined }
      } catch (error) {
        // A layout with nothing in it is said; all tones are shown meanwhile.
        if (!(error instanceof Problem) || error.status !== 422 || !layout.kind) throw error
        return { view: await ask({}), refused: error }
      }
    },
  )
  // What is not known yet keeps what was there before: the neck does not blink.
  watch(found, (now) => {
    if (!now) return
    shown.value = now.view
    refusal.value = now.refused
  })
  watch(problem, (now) => now && !now.isFault && tune.tell(now))

  function hide(degree: string) {
    const all = new Set(hidden.value)
    if (!all.delete(degree)) all.add(degree)
    return query.set({ hide: [...all].join(' ') })
  }

  return { query, shown, refusal, full, over, label, hidden, next, hide }
}
