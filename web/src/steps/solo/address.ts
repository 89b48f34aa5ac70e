import { maybeWhole, oneOf, whole } from '../../address/query'
import { useQuery } from '../../address/useQuery'

/** What the bench of the Solo step shows. */
export const benches = [
  { name: 'line', title: 'Time line' },
  { name: 'plan', title: 'Plan' },
  { name: 'verdict', title: 'Verdict' },
  { name: 'alternatives', title: '3 alternatives' },
  { name: 'compare', title: 'Compare' },
  { name: 'keep', title: 'Keep' },
] as const
export type Bench = (typeof benches)[number]['name']

/** What can be heard of a solo. */
export const parts = [
  { value: 'chorus', text: 'this chorus' },
  { value: 'row', text: 'these four bars' },
  { value: 'bar', text: 'this bar' },
  { value: 'all', text: 'all choruses' },
] as const

/** What the Solo step keeps in the address. */
export const useSoloQuery = () =>
  useQuery('solo', {
    bench: oneOf(['line', 'plan', 'verdict', 'alternatives', 'compare', 'keep']),
    /** The solo that is open; none is the tune's first. */
    id: maybeWhole(1, 1 << 30),
    /** The chorus that is looked at, from 1. */
    chorus: whole(1, 16),
    hear: oneOf(['chorus', 'row', 'bar', 'all']),
  })

export type SoloQuery = ReturnType<typeof useSoloQuery>
