import { computed, shallowRef, watch } from 'vue'
import { answer, client, Problem, type ChordView, type Layout } from '../api/client'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/** What can be laid over a chord, as the address holds it. An arpeggio is held by its chord. */
export const overlays = [
  { name: 'box', title: 'box' },
  { name: 'blend', title: 'blend' },
  { name: 'joining', title: 'scale' },
  { name: 'extensions', title: 'extensions' },
  { name: 'next', title: 'next chord' },
  { name: 'none', title: 'nothing' },
] as const

export const labels = ['interval', 'note', 'degree of the key', 'finger'] as const

/**
 * The chord under work in the position under work, as the server lays it out,
 * with everything that can be laid over it; what is chosen is in the address.
 */
export function useChord() {
  const tune = useTune()
  const view = useView()
  const shown = shallowRef<ChordView>()
  const refusal = shallowRef<Problem>()

  const slide = computed(() => view.text('slide') === 'yes')
  const full = computed(() => view.text('neck') === 'full')
  const over = computed(() => view.text('over') || 'box')
  const label = computed(() => labels.find((name) => name === view.text('label')) ?? 'interval')
  const hidden = computed(() => new Set(view.text('hide').split(' ').filter(Boolean)))
  /** The layout as the address holds it: its kind, and what it needs behind a colon. */
  const layoutText = computed(() => view.text('layout'))
  const layout = computed<Layout>(() => {
    const [kind = '', of = ''] = layoutText.value.split(':')
    const [low, high] = of.split('-').map(Number)
    return kind === 'one octave' ? { kind, from: of } : { kind: kind || undefined, low, high }
  })

  const next = computed(() => {
    const tick = view.moment.value?.next
    const change = tune.read?.changes.find((one) => one.tick === tick)
    return change?.stays ? undefined : change?.arriving.chord
  })

  let asked = 0
  watch(
    [
      () => tune.chart,
      () => view.moment.value?.chord,
      next,
      () => view.position.value,
      slide,
      layoutText,
      () => tune.hands,
    ] as const,
    async ([chart, chord, after, position, sliding, , hands]) => {
      const mine = ++asked
      if (!chart || !chord || !position) return
      const place = sliding && position.form ? position.form : position.id
      const ask = (how: Layout) =>
        answer(
          client.POST('/api/compute/chord', {
            body: {
              chart,
              hands,
              chord,
              next: after,
              position: place,
              slide: sliding && Boolean(position.form),
              layout: how,
            },
          }),
        )
      let refused: Problem | undefined
      try {
        // A layout with nothing in it is said; all tones are shown meanwhile.
        const got = await ask(layout.value).catch((error: unknown) => {
          if (!(error instanceof Problem) || error.status !== 422 || !layout.value.kind) throw error
          refused = error
          return ask({})
        })
        if (mine !== asked) return
        shown.value = got
        refusal.value = refused
      } catch (error) {
        if (mine === asked) tune.tell(error)
      }
    },
    { immediate: true },
  )

  function hide(degree: string) {
    const all = new Set(hidden.value)
    if (!all.delete(degree)) all.add(degree)
    return view.set({ hide: [...all].join(' ') || undefined })
  }

  return { shown, refusal, slide, full, over, label, hidden, layoutText, next, hide }
}
