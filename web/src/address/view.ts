import { computed } from 'vue'
import { useAnswer } from '../api/ask'
import { answer, client, type Change, type ChordSpan, type NeckMap } from '../api/client'
import { useRoute } from 'vue-router'
import { useTune } from '../document/tune'
import { chosenBar, following, heardAt } from './following'
import { place, text, whole } from './query'
import { useQuery } from './useQuery'

type MapPosition = NeckMap['positions'][number]

/** The steps of the work that there are, by the number of their key. */
export const steps = [
  { key: '1', name: 'chart', title: 'Chart' },
  { key: '2', name: 'map', title: 'Map' },
  { key: '3', name: 'change', title: 'Change' },
  { key: '4', name: 'licks', title: 'Licks' },
  { key: '5', name: 'solo', title: 'Solo' },
  { key: '6', name: 'play', title: 'Play' },
  { key: '7', name: 'practice', title: 'Practice' },
  { key: '8', name: 'exercise', title: 'Exercises' },
  { key: '9', name: 'takes', title: 'Takes' },
] as const

const longest = 1 << 26

/** What every step looks at: the moment of the chart, the position, and how a target is led into. */
const shared = {
  at: whole(0, longest),
  pos: text(),
  target: place(),
  sub: text(),
  strategy: text(),
  approach: text(),
}

/** The position an address asks for, by id or by the name it is kept by. */
const findPosition = (all: MapPosition[], wanted: string) =>
  all.find((p) => p.id === wanted || p.name === wanted)

/**
 * What is being looked at, held by the address so that it can be kept, shared and gone
 * back to. Steps add values of their own with `useQuery`.
 */
export function useView() {
  const tune = useTune()
  const query = useQuery('', shared)
  const route = useRoute()

  const moments = computed(() => tune.read?.chordSpans ?? [])
  const changes = computed(() => tune.read?.changes ?? [])

  const at = (tick: number) => moments.value.findLast((m) => m.tick <= tick) ?? moments.value[0]
  const changeFrom = (m: ChordSpan | undefined) => changes.value.find((c) => c.tick === m?.next)
  /** The moment that was picked by hand, and the change after it. */
  const picked = computed<ChordSpan | undefined>(() => at(query.at.value))
  const pickedChange = computed<Change | undefined>(() => changeFrom(picked.value))
  /** The moment that is shown: while the tune sounds and is followed, the one that is heard. */
  const moment = computed<ChordSpan | undefined>(() =>
    following.value && heardAt.value !== undefined ? at(heardAt.value) : picked.value,
  )
  const change = computed<Change | undefined>(() => changeFrom(moment.value))
  const positions = computed(() => tune.map?.positions ?? [])
  // What was kept for another instrument or another key is found by the server.
  const { answer: meant } = useAnswer(
    () => {
      const position = query.pos.value
      if (!position || !tune.music || !positions.value.length) return undefined
      if (findPosition(positions.value, position)) return undefined
      return { chart: tune.music, hands: tune.hands, position, at: moment.value?.tick }
    },
    (body, signal) => answer(client.POST('/api/compute/chart/position', { body, signal })),
  )
  const position = computed(() => {
    const wanted = query.pos.value || tune.map?.defaultPosition || ''
    return findPosition(positions.value, wanted) ?? findPosition(positions.value, meant.value?.id ?? '')
  })

  /** The subdivisions of the tune's meter, and the one that is chosen. */
  const subdivisions = computed(() => tune.choices?.subdivisions[tune.chart?.meter ?? ''] ?? [])
  const subdivision = computed(() =>
    subdivisions.value.includes(query.sub.value) ? query.sub.value : (tune.choices?.subdivision ?? ''),
  )
  const strategy = computed(
    () =>
      tune.choices?.strategies.find((s) => s === query.strategy.value) ?? tune.choices?.strategies[0] ?? '',
  )

  /** Goes to a moment by hand; what sounds is no longer followed. */
  function goTo(m: ChordSpan) {
    following.value = false
    chosenBar.value = m.bar
    return query.set({ at: m.tick, target: undefined })
  }
  /** Steps that show one moment of the tune stay at the last one that was heard. */
  const staying: unknown[] = ['map', 'change', 'play']
  const stayAt = (tick: number) => staying.includes(route.name) && query.set({ at: tick })

  /** Goes to the change that lies the given number of changes further on. */
  function walkChanges(by: number) {
    const all = changes.value
    if (all.length === 0) return
    const here = all.findIndex((c) => c.tick === moment.value?.next)
    const next = all[(here + by + all.length) % all.length]
    if (next) void goTo(next.leaving)
  }

  const setPosition = (position: string) => query.set({ pos: position, target: undefined })
  function walkPositions(by: number) {
    const all = tune.map?.positions ?? []
    const here = all.findIndex((p) => p.id === position.value?.id)
    const next = all[Math.min(Math.max(here + by, 0), all.length - 1)]
    if (next) void setPosition(next.id)
  }

  return {
    ...{
      moments,
      moment,
      changes,
      change,
      picked,
      pickedChange,
      position,
      subdivisions,
      subdivision,
      strategy,
    },
    ...{ target: query.target, approach: query.approach, wanted: query.pos, set: query.set },
    ...{ goTo, stayAt, setPosition, walkChanges, walkPositions },
  }
}
