import type { Exercise } from '../api/client'

/** The part of an address that opens an exercise to be tried out, with its choices beside the tab. */
export const exerciseQuery = (choices: Partial<Exercise>) => ({
  'exercise.of': JSON.stringify(choices),
  'exercise.id': undefined,
  'exercise.side': 'choices',
})
