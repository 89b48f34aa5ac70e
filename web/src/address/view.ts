import { computed } from 'vue'
import type { Change, Moment, NeckMap } from '../api/client'
import { useTune } from '../document/tune'
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
] as const

const longest = 1 << 26

/** What every step looks at: the moment of the chart, the position, and how a target is led into. */
const shared = {
  at: whole(0, longest),
  pos: text(),
  target: place(),
  sub: text(),
  school: text(),
  approach: text(),
}

/** The position nearest to a wanted one that the neck in hand does not have. */
export function nearestPosition(all: MapPosition[], wanted: string): MapPosition | undefined {
  const fret = Number(wanted.split('-')[1])
  if (Number.isNaN(fret)) return undefined
  return [...all].sort((a, b) => Math.abs(a.core - fret) - Math.abs(b.core - fret))[0]
}

/** The position an address asks for: by id, by the name it is kept by, or the nearest. */
export function wantedPosition(all: MapPosition[], wanted: string): MapPosition | undefined {
  const form = wanted.split(/[-+]/)[0]
  const sameForm = all.filter((p) => p.form && p.form === form)
  const fret = Number(wanted.split('-')[1])
  return (
    all.find((p) => p.id === wanted || p.name === wanted) ??
    (Number.isNaN(fret) ? sameForm[0] : nearestPosition(sameForm, wanted)) ??
    nearestPosition(all, wanted) ??
    all[0]
  )
}

/**
 * What is being looked at, held by the address so that it can be kept, shared and gone
 * back to. Steps add values of their own with `useQuery`.
 */
export function useView() {
  const tune = useTune()
  const query = useQuery('', shared)

  const moments = computed(() => tune.read?.moments ?? [])
  const changes = computed(() => tune.read?.changes ?? [])

  const moment = computed<Moment | undefined>(
    () => moments.value.findLast((m) => m.tick <= query.at.value) ?? moments.value[0],
  )
  const change = computed<Change | undefined>(() => changes.value.find((c) => c.tick === moment.value?.next))
  const position = computed(() =>
    wantedPosition(tune.map?.positions ?? [], query.pos.value || tune.map?.home || ''),
  )

  /** The subdivisions of the tune's meter, and the one that is chosen. */
  const subdivisions = computed(() => tune.choices?.subdivisions[tune.chart?.meter ?? ''] ?? [])
  const subdivision = computed(() =>
    subdivisions.value.includes(query.sub.value) ? query.sub.value : (tune.choices?.subdivision ?? ''),
  )
  const school = computed(
    () => tune.choices?.schools.find((s) => s === query.school.value) ?? tune.choices?.schools[0] ?? '',
  )

  const goTo = (m: Moment) => query.set({ at: m.tick, target: undefined })

  /** Goes to the change that lies the given number of changes further on. */
  function walkChanges(by: number) {
    const all = changes.value
    if (all.length === 0) return
    const here = all.findIndex((c) => c.tick === moment.value?.next)
    const next = all[(here + by + all.length) % all.length]
    if (next) void goTo(next.leaving)
  }

  const stand = (position: string) => query.set({ pos: position, target: undefined })
  function walkPositions(by: number) {
    const all = tune.map?.positions ?? []
    const here = all.findIndex((p) => p.id === position.value?.id)
    const next = all[Math.min(Math.max(here + by, 0), all.length - 1)]
    if (next) void stand(next.id)
  }

  return {
    ...{ moments, moment, changes, change, position, subdivisions, subdivision, school },
    ...{ target: query.target, approach: query.approach, wanted: query.pos, set: query.set },
    ...{ goTo, stand, walkChanges, walkPositions },
  }
}
