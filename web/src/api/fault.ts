import { shallowRef } from 'vue'
import type { Problem } from './client'

/** The fault of the server or the network that was met last and is not over, for all to see. */
export const fault = shallowRef<Problem>()

/** Says a fault on the page; what is refused is said where it was asked. */
export function reportFault(problem: Problem) {
  if (problem.isFault) fault.value = problem
}

/** What was wrong is over, or nobody asks for it any more. */
export function faultIsOver() {
  fault.value = undefined
}

/** The server has answered something: if it was away it is there again, whoever met that. */
export function networkAnswers() {
  if (fault.value?.status === 0) fault.value = undefined
}
