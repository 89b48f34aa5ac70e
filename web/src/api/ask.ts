import { getCurrentScope, onScopeDispose, ref, shallowRef, watch, type WatchSource } from 'vue'
import { Problem } from './client'
import { faultIsOver, reportFault } from './fault'

/** The pauses after which a question that met a fault is asked again, in ms; the last one is repeated. */
export const askAgainPauses = [1000, 2000, 5000, 10000]

/** Asks the server something; `known` is its answer where that is remembered. */
export interface Ask<Q, A> {
  (question: Q, signal: AbortSignal): Promise<A>
  known?: (question: Q) => A | undefined
}

/**
 * An answer of the server that follows what it is asked about: asked anew whenever that
 * changes, and the question before aborted. Nothing is asked while there is no question.
 * What is refused is said, and the answer before is taken away; a fault of the server or
 * the network is none of the question's: the answer before stays, and it is asked again until it is answered.
 */
export function useAnswer<Q, A>(
  question: WatchSource<Q | undefined>,
  ask: Ask<Q, A>,
  { debounce = 0 }: { debounce?: number } = {},
) {
  const answer = shallowRef<A>()
  const refusal = ref('')
  const problem = shallowRef<Problem>()
  const asking = ref(false)
  let last: string | undefined
  let abort: AbortController | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let faults = 0

  function overtake() {
    clearTimeout(timer)
    abort?.abort()
    abort = undefined
  }

  function take(got: A) {
    answer.value = got
    refusal.value = ''
    problem.value = undefined
    if (faults) faultIsOver()
    faults = 0
  }

  async function askNow(q: Q) {
    overtake()
    // What is remembered is answered at once, so that what is asked about and its answer are drawn together, once.
    const known = ask.known?.(q)
    if (known !== undefined) {
      asking.value = false
      return take(known)
    }
    const mine = new AbortController()
    abort = mine
    asking.value = true
    try {
      const got = await ask(q, mine.signal)
      if (abort !== mine) return
      take(got)
    } catch (error) {
      if (abort !== mine) return
      problem.value = error instanceof Problem ? error : new Problem(0, String(error))
      refusal.value = problem.value.message
      // What was answered before stays in sight while the server is away; what is refused has no answer.
      if (!problem.value.isFault) answer.value = undefined
      if (problem.value.isFault) {
        reportFault(problem.value)
        const pause = askAgainPauses[Math.min(faults, askAgainPauses.length - 1)]
        faults++
        timer = setTimeout(() => void askNow(q), pause)
      }
    } finally {
      if (abort === mine || !abort) asking.value = false
    }
  }

  watch(
    question,
    (q) => {
      // The same question in other objects is the same question.
      const text = q === undefined ? undefined : JSON.stringify(q)
      if (text === last) return
      last = text
      faults = 0
      if (q === undefined) {
        overtake()
        asking.value = false
        answer.value = undefined
        refusal.value = ''
        problem.value = undefined
        return
      }
      if (debounce === 0 || answer.value === undefined) return void askNow(q)
      overtake()
      asking.value = true
      timer = setTimeout(() => void askNow(q), debounce)
    },
    { immediate: true },
  )
  if (getCurrentScope())
    onScopeDispose(() => {
      overtake()
      if (faults) faultIsOver()
    })
  return { answer, refusal, problem, asking }
}

/** How many answers are remembered of each kind of question. */
export const mostRemembered = 60

/**
 * Remembers the latest answers to questions whose answer depends on nothing else, so that going back and forth
 * between changes and positions waits for nobody. What was refused is asked again.
 */
export function remembered<Q, A>(ask: (question: Q, signal: AbortSignal) => Promise<A>): Ask<Q, A> {
  const known = new Map<string, A>()
  function keep(text: string, got: A): A {
    // The one asked for last is forgotten last.
    known.delete(text)
    known.set(text, got)
    const [oldest] = known.keys()
    if (known.size > mostRemembered && oldest !== undefined) known.delete(oldest)
    return got
  }
  const asked = async (question: Q, signal: AbortSignal): Promise<A> => {
    const text = JSON.stringify(question)
    return keep(text, known.get(text) ?? (await ask(question, signal)))
  }
  return Object.assign(asked, {
    known: (question: Q) => {
      const text = JSON.stringify(question)
      const got = known.get(text)
      return got === undefined ? undefined : keep(text, got)
    },
  })
}

/**
 * Asks something once, again and again as it is called for, the latest call winning: an
 * overtaken call returns nothing and is aborted.
 */
export function latestOnly() {
  let abort: AbortController | undefined
  return async function <A>(ask: (signal: AbortSignal) => Promise<A>): Promise<A | undefined> {
    abort?.abort()
    const mine = new AbortController()
    abort = mine
    try {
      const got = await ask(mine.signal)
      return abort === mine ? got : undefined
    } catch (error) {
      if (abort === mine) throw error
      return undefined
    }
  }
}
