import { ref, shallowRef, watch, type WatchSource } from 'vue'
import { Problem } from '../api/client'

/**
 * An answer of the server that follows what it is asked about: asked anew whenever
 * that changes, and dropped where a newer question has overtaken it. Nothing is
 * asked while there is no question. What is refused is said, and the answer before
 * is taken away.
 */
export function useAnswer<Q, A>(question: WatchSource<Q | undefined>, ask: (question: Q) => Promise<A>) {
  const answer = shallowRef<A>()
  const refusal = ref('')
  const problem = shallowRef<Problem>()
  let asked = 0
  let last: string | undefined
  watch(
    question,
    async (q) => {
      // The same question in other objects is the same question.
      const text = JSON.stringify(q)
      if (text === last) return
      last = text
      const mine = ++asked
      if (q === undefined) {
        answer.value = undefined
        refusal.value = ''
        return
      }
      try {
        const got = await ask(q)
        if (mine !== asked) return
        answer.value = got
        refusal.value = ''
        problem.value = undefined
      } catch (error) {
        if (mine !== asked) return
        answer.value = undefined
        refusal.value = error instanceof Error ? error.message : String(error)
        problem.value = error instanceof Problem ? error : undefined
      }
    },
    { immediate: true },
  )
  return { answer, refusal, problem }
}
