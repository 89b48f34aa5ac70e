import { oneOf } from '../../address/query'
import { useQuery } from '../../address/useQuery'

/** What the Chart step keeps in the address. */
export const useChartQuery = () =>
  useQuery('chart', { panel: oneOf(['bar', 'form', 'tune', 'turnarounds', 'facts', 'versions', 'file']) })
