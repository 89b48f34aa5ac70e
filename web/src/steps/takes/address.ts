import { oneOf, whole } from '../../address/query'
import { useQuery } from '../../address/useQuery'

export const benches = [
  { name: 'verdict', title: 'Verdict' },
  { name: 'notes', title: 'Notes' },
  { name: 'takes', title: 'Takes' },
  { name: 'tuner', title: 'Tuner' },
  { name: 'delay', title: 'Set-up' },
  { name: 'file', title: 'File' },
] as const

export type Bench = (typeof benches)[number]['name']

/** What of Takes stands in the address. */
export const useTakesQuery = () =>
  useQuery('takes', {
    bench: oneOf(['verdict', 'notes', 'takes', 'tuner', 'delay', 'file']),
    take: whole(0, 1 << 30),
    /** The take beside it: none for 0; left out for the one that was played before it. */
    beside: whole(0, 1 << 30, 1 << 30),
  })
