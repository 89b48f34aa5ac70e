import { oneOf } from '../../address/query'
import { useQuery } from '../../address/useQuery'

export const benches = [
  { name: 'routine', title: 'Routine' },
  { name: 'band', title: 'Band' },
  { name: 'click', title: 'Click' },
  { name: 'export', title: 'Export' },
  { name: 'pedal', title: 'Pedal' },
] as const

export type Bench = (typeof benches)[number]['name']

/** What of Play stands in the address. */
export const usePlayQuery = () =>
  useQuery('play', { bench: oneOf(['routine', 'band', 'click', 'export', 'pedal']) })
