import { oneOf, text, whole } from '../../address/query'
import { useQuery } from '../../address/useQuery'

export const pages = [
  { name: 'today', title: 'Today' },
  { name: 'drill', title: 'Any drill' },
  { name: 'pictures', title: 'Pictures' },
  { name: 'goal', title: 'Goal' },
  { name: 'log', title: 'Log' },
] as const

/** What cards are drawn from: this tune, all tunes, or the twelve keys. */
export const scopes = ['tune', 'all', 'keys'] as const

/** What of Practice stands in the address. */
export const usePracticeQuery = () =>
  useQuery('practice', {
    page: oneOf(['today', 'drill', 'pictures', 'goal', 'log']),
    minutes: whole(5, 120, 20),
    scope: oneOf(scopes),
    kind: text(),
    /** Given cards and no others, with semicolons between: the changes that a take missed. */
    cards: text(),
  })
