import { computed, shallowRef, watch } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client, type Exercise } from '../../api/client'
import { useView } from '../../address/view'
import { useExercises } from '../../document/exercises'
import type { Kept } from '../../document/kept'
import { useTune } from '../../document/tune'
import { useUndoable } from '../../document/undo'
import type { ExerciseQuery } from './address'

/** An exercise with nothing chosen. */
export const plain = (): Exercise => ({
  name: '',
  about: '',
  over: {},
  where: {},
  order: {},
  ornaments: {},
  time: {},
})

/** The exercise that an address holds as JSON; what cannot be read is the plain one. */
export function readExercise(text: string): Exercise {
  try {
    const read: unknown = JSON.parse(text)
    return read && typeof read === 'object' ? { ...plain(), ...read, name: '' } : plain()
  } catch {
    return plain()
  }
}

/** A value without what is not chosen, its names in order, so that equal ones are written alike. */
function chosenOf(value: unknown): unknown {
  if (!value || typeof value !== 'object' || Array.isArray(value)) return value
  const entries = Object.entries(value)
    .map(([name, one]) => [name, chosenOf(one)] as const)
    .filter(([, one]) => one !== undefined && one !== '' && one !== false && JSON.stringify(one) !== '{}')
    .sort(([a], [b]) => (a < b ? -1 : 1))
  return Object.fromEntries(entries)
}

/** An exercise as an address holds it: only what is chosen. */
export const writeExercise = (e: Exercise): string => JSON.stringify(chosenOf({ ...e, name: '' }))

/** The exercise under work, and what the server writes of it. */
export function useExerciseWork(query: ExerciseQuery) {
  const tune = useTune()
  const view = useView()
  const exercises = useExercises()

  const tried = shallowRef<Kept<Exercise, undefined>>(exercises.documents.fresh())
  const document = computed(() => (query.id.value ? exercises.documents.of(query.id.value) : tried.value))
  const exercise = computed(() => document.value.body.value)
  watch(
    () => query.id.value,
    (id) =>
      id &&
      exercises.documents
        .of(id)
        .load()
        .catch((error) => {
          // What is not there any more is not stayed at.
          exercises.documents.forget(id)
          tune.tell(error)
          return query.set({ id: undefined })
        }),
    { immediate: true },
  )
  // One that is tried out stands in the address, so that a page that is loaded again has it.
  watch(
    () => [query.id.value, query.of.value, tune.choices] as const,
    ([id, of, choices]) => {
      if (id || !choices) return
      const body = of ? readExercise(of) : { ...choices.exercises.readyMade[0]!, name: '' }
      const now = tried.value.body.value
      if (now && writeExercise(now) === writeExercise(body)) return
      tried.value = exercises.documents.fresh()
      void tried.value.begin(body)
    },
    { immediate: true },
  )
  watch(
    () => !query.id.value && tried.value.body.value,
    (body) => body && !body.name && void query.set({ of: writeExercise(body) }),
  )
  // It is found by its id as soon as it is kept.
  watch(
    () => tried.value.id.value,
    (id) => {
      if (!id) return
      exercises.documents.adopt(tried.value)
      tried.value = exercises.documents.fresh()
      void query.set({ id, of: undefined })
    },
  )
  useUndoable(() => document.value)

  const request = computed(() => {
    const { music: chart, hands } = tune
    if (!chart || !exercise.value || !view.position.value) return undefined
    const key = query.key.value && query.key.value !== tune.chart?.key.tonic ? query.key.value : undefined
    const { name, ...choices } = exercise.value
    // What it is called does not change how it is written.
    return {
      chart,
      hands,
      exercise: { ...choices, name: name && 'exercise' },
      position: view.position.value.id,
      tonic: key,
    }
  })
  const { answer: written, problem } = useAnswer(request, (body, signal) =>
    answer(client.POST('/api/compute/exercise', { body, signal })),
  )

  /** Makes one edit; what it was called is kept. */
  function edit(label: string, change: (now: Exercise) => Exercise) {
    return document.value.edit(
      label,
      (now) => Promise.resolve({ body: change(now), shown: undefined }),
      label,
    )
  }

  /** Opens an exercise to be tried out. */
  const tryOut = (e: Exercise) => query.set({ id: undefined, of: writeExercise(e) })
  const open = (id: number) => query.set({ id, of: undefined })

  /** The nearest exercise that can be written, where this one cannot. */
  const nearest = computed(() => problem.value?.exercise)

  return { document, exercise, request, written, problem, nearest, edit, tryOut, open }
}

export type ExerciseWork = ReturnType<typeof useExerciseWork>
