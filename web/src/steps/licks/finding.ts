import { computed, ref } from 'vue'
import { answer, client, type FindLicks, type KeptLick } from '../../api/client'
import { useAnswer } from '../../api/ask'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { placesText, readPlaces } from '../../address/query'
import type { LicksQuery } from './address'

/** What can be asked of a lick, in the order it is shown; the address holds what is. */
export const questions = [
  { name: 'fits', says: 'fits over' },
  { name: 'scale', says: 'all in' },
  { name: 'starts', says: 'starts on' },
  { name: 'ends', says: 'ends on' },
  { name: 'lands', says: 'lands on' },
  { name: 'leans', says: 'leans on' },
  { name: 'technique', says: 'with' },
  { name: 'tag', says: 'tagged' },
  { name: 'mostBars', says: 'bars at most' },
  { name: 'mostPerSecond', says: 'notes a second at most' },
] as const
export type Question = (typeof questions)[number]['name']

/** Finds licks by what is computed of them in this key and position. */
export function useFinding(licks: () => KeptLick[], query: LicksQuery) {
  const tune = useTune()
  const view = useView()
  const asked = computed(() => new URLSearchParams(query.find.value))
  const text = computed(() => asked.value.get('text') ?? '')
  const near = computed(() => readPlaces(asked.value.get('near') ?? '')[0])
  const here = computed(() => asked.value.get('here') === 'yes')
  const showing = ref(false)
  const toggle = () => (showing.value = !showing.value)

  function ask(name: string, value: string | undefined) {
    const next = new URLSearchParams(asked.value)
    if (value) next.set(name, value)
    else next.delete(name)
    return query.set({ find: next.toString() })
  }
  const askNear = (place: { string: number; fret: number } | undefined) =>
    ask('near', place && placesText([place]))

  const { answer: found, refusal } = useAnswer(
    () => {
      const position = view.position.value?.id
      if (!tune.music || !position) return undefined
      const want = (name: Question) => asked.value.get(name) ?? undefined
      const ask: FindLicks = { chart: tune.music, hands: tune.hands, position }
      for (const { name } of questions) {
        if (name === 'mostBars' || name === 'mostPerSecond') ask[name] = Number(want(name)) || undefined
        else ask[name] = want(name)
      }
      // What the library holds is part of the question, so that it is asked anew when it changes.
      const library = licks()
        .map((l) => `${l.id}.${l.version}`)
        .join(' ')
      return {
        body: { ...ask, text: text.value || undefined, here: here.value, near: near.value },
        library,
      }
    },
    ({ body }, signal) => answer(client.POST('/api/licks/find', { body, signal })),
    // Words are typed letter by letter.
    { debounce: 200 },
  )

  /** The licks that are as wanted, in their order; all until it is known. */
  const shown = computed(() => {
    const by = new Map(licks().map((l) => [l.id, l]))
    if (!found.value) return licks().map((lick) => ({ lick, says: '' }))
    return found.value.found.flatMap((f) => {
      const lick = by.get(f.id)
      return lick ? [{ lick, says: f.text }] : []
    })
  })
  /** What is asked, beside the words, to be shown and taken back. */
  const chips = computed(() => [
    ...questions.flatMap(({ name, says }) => {
      const value = asked.value.get(name)
      return value ? [{ name: name as string, text: `${says} ${value}` }] : []
    }),
    ...(here.value ? [{ name: 'here', text: 'in this position' }] : []),
    ...(near.value ? [{ name: 'near', text: `ends near ${placesText([near.value])}` }] : []),
  ])
  const options = (name: Question): string[] => {
    const f = found.value?.facets
    if (!f) return []
    if (name === 'mostPerSecond') return ['2', '3', '4', '6', '8']
    if (name === 'mostBars') return f.bars.map(String)
    const lists: Record<Exclude<Question, 'mostPerSecond' | 'mostBars'>, string[]> = {
      ...{ fits: f.chords, scale: f.scales, starts: f.starts, ends: f.ends, lands: f.lands, leans: f.leans },
      ...{ technique: f.techniques, tag: f.tags },
    }
    return lists[name]
  }

  return { found, refusal, shown, chips, asked, text, near, here, showing, toggle, ask, askNear, options }
}

export type Finding = ReturnType<typeof useFinding>
