import { computed } from 'vue'
import { useRoute, useRouter, type LocationQueryRaw } from 'vue-router'
import type { Change, Moment, Place, Position } from '../api/client'
import { useTune } from './tune'

/** The steps of the work that there are, by the number of their key. */
export const steps = [
  { key: '1', name: 'chart', title: 'Chart' },
  { key: '2', name: 'map', title: 'Map' },
  { key: '3', name: 'change', title: 'Change' },
  { key: '4', name: 'licks', title: 'Licks' },
  { key: '5', name: 'solo', title: 'Solo' },
] as const

/** The position nearest to a wanted one that the neck in hand does not have. */
function nearest(all: Position[], wanted: string): Position | undefined {
  const fret = Number(wanted.split('-')[1])
  if (Number.isNaN(fret)) return undefined
  return [...all].sort((a, b) => Math.abs(a.core - fret) - Math.abs(b.core - fret))[0]
}

/**
 * What is being looked at, held by the address so that it can be kept, shared
 * and gone back to: the moment of the chart, the position, and the choices of a
 * line.
 */
export function useView() {
  const route = useRoute()
  const router = useRouter()
  const tune = useTune()

  const text = (name: string) => {
    const value = route.query[name]
    return typeof value === 'string' ? value : ''
  }

  /** Changes what is looked at. Any choice but that of a kept line closes the line that is open. */
  function set(values: Record<string, string | undefined>) {
    const query: LocationQueryRaw = { ...route.query, line: undefined, ...values }
    for (const name of Object.keys(query)) if (!query[name]) delete query[name]
    return router.replace({ query })
  }

  const moments = computed(() => tune.read?.moments ?? [])
  const changes = computed(() => tune.read?.changes ?? [])

  const moment = computed<Moment | undefined>(() => {
    const at = Number(text('at'))
    return moments.value.findLast((m) => m.tick <= at) ?? moments.value[0]
  })

  const change = computed<Change | undefined>(() => changes.value.find((c) => c.tick === moment.value?.next))

  const position = computed(() => {
    const wanted = text('pos') || tune.map?.home || ''
    const all = tune.map?.positions ?? []
    return (
      all.find((p) => p.id === wanted) ??
      all.find((p) => p.form && p.form === wanted.split('-')[0]) ??
      nearest(all, wanted) ??
      all[0]
    )
  })

  const target = computed<Place | undefined>(() => {
    const [string, fret] = text('target').split(':').map(Number)
    return string && fret !== undefined && !Number.isNaN(fret) ? { string, fret } : undefined
  })

  /** The subdivisions of the tune's meter, and the one that is chosen. */
  const subdivisions = computed(() => tune.choices?.subdivisions[tune.chart?.meter ?? ''] ?? [])
  const subdivision = computed(() =>
    subdivisions.value.includes(text('sub')) ? text('sub') : (tune.choices?.subdivision ?? ''),
  )

  function goTo(m: Moment) {
    return set({ at: String(m.tick), target: undefined })
  }

  /** Goes to the change that lies the given number of changes further on. */
  function walkChanges(by: number) {
    const all = changes.value
    if (all.length === 0) return
    const here = all.findIndex((c) => c.tick === moment.value?.next)
    const next = all[(here + by + all.length) % all.length]
    if (next) void goTo(next.leaving)
  }

  function walkPositions(by: number) {
    const all = tune.map?.positions ?? []
    const here = all.findIndex((p) => p.id === position.value?.id)
    const next = all[Math.min(Math.max(here + by, 0), all.length - 1)]
    if (next) void set({ pos: next.id, target: undefined })
  }

  return {
    ...{ text, set, moments, moment, changes, change, position, target, subdivisions, subdivision },
    ...{ goTo, walkChanges, walkPositions },
  }
}
