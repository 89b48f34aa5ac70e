import { flag, maybeWhole, oneOf, text } from '../../address/query'
import { useQuery } from '../../address/useQuery'

/** What stands beside the tab, in the order of the tabs. */
export const sides = [
  { name: 'begin', title: 'Begin with' },
  { name: 'choices', title: 'Choices' },
  { name: 'keep', title: 'Keep' },
  { name: 'etude', title: 'Etude' },
] as const

/** What the Exercises step keeps in the address. */
export const useExerciseQuery = () =>
  useQuery('exercise', {
    side: oneOf(['begin', 'choices', 'keep', 'etude']),
    /** The kept exercise that is open. */
    id: maybeWhole(1, 1 << 30),
    /** The choices of one that is not kept, as JSON; empty for the first ready-made one. */
    of: text(),
    /** All choices, not only the first few. */
    more: flag(),
    /** The band is silent but for the click. */
    alone: flag(),
    /** Each time round is faster. */
    ramp: flag(),
    /** Another key than the tune's. */
    key: text(),
    /** What is asked of the exercises that are listed. */
    find: text(),
  })

export type ExerciseQuery = ReturnType<typeof useExerciseQuery>
