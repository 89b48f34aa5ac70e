import { ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client, type KeptExercise, type Lick } from '../../api/client'
import { useBand } from '../../document/band'
import { useExercises } from '../../document/exercises'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import { download } from '../../sound/download'
import { asEvent } from '../../tab/tab'
import type { ExerciseQuery } from './address'
import type { ExerciseWork } from './work'

/** Exercises that are kept, deleted, brought back and taken away, and what was done last. */
export function useKeeping(work: ExerciseWork, query: ExerciseQuery) {
  const tune = useTune()
  const exercises = useExercises()
  const licks = useLicks()
  const band = useBand()
  const router = useRouter()
  const route = useRoute()
  const notice = ref('')
  const gone = shallowRef<KeptExercise>()

  async function attempt(work: () => Promise<unknown>) {
    try {
      notice.value = ''
      await work()
    } catch (error) {
      tune.tell(error)
    }
  }

  /** The name that one gets that has none yet. */
  const freshName = () => {
    const ready = tune.choices?.exercises.readyMade.find((one) => one.about === work.exercise.value?.about)
    return (ready?.name ?? work.written.value?.text ?? 'New exercise').slice(0, 60)
  }

  /** Keeps the exercise, which has a name from then on. */
  const keep = () =>
    attempt(async () => {
      const name = work.exercise.value?.name || freshName()
      const problem = await work.edit('keep it', (now) => ({ ...now, name }))
      if (problem) throw problem
      notice.value = `Kept as ${name}.`
    })

  /** Goes on with a copy that is not kept yet. */
  const copy = () =>
    attempt(async () => {
      if (work.exercise.value) await work.tryOut({ ...work.exercise.value, tags: undefined })
    })

  const remove = () =>
    attempt(async () => {
      const one = exercises.readable.find((e) => e.id === query.id.value)
      if (!one) return
      await exercises.remove(one)
      gone.value = one
      await query.set({ id: undefined, of: undefined })
    })
  const bringBack = () =>
    attempt(async () => {
      const one = gone.value
      if (!one) return
      await exercises.bringBack(one.id)
      gone.value = undefined
      await query.set({ id: one.id })
    })

  /** The notes as a lick, over the chords that they stand over. */
  function asLick(): Lick | undefined {
    const { written, exercise } = work
    const w = written.value
    if (!w || !exercise.value) return undefined
    const chords: { tick: number; chord: string }[] = []
    for (const e of w.tab.events)
      if (e.chord !== chords.at(-1)?.chord) chords.push({ tick: chords.length ? e.tick : 0, chord: e.chord })
    return {
      name: (exercise.value.name || freshName()).slice(0, 60),
      about: w.text.slice(0, 200),
      tonic: (w.chart ?? tune.chart!).key.tonic,
      tuning: tune.hands?.instrument?.tuning,
      tags: ['exercise'],
      ...{ meter: w.tab.meter, events: w.tab.events.map(asEvent), chords },
    }
  }
  /** Keeps the notes as a lick and writes on there. */
  const editByHand = () =>
    attempt(async () => {
      const lick = asLick()
      if (!lick) return
      const kept = await licks.create(lick)
      await router.push({
        name: 'licks',
        params: route.params,
        query: { ...route.query, 'licks.lick': String(kept.id), 'licks.panel': 'write' },
      })
    })

  /** A routine of its own: four choruses of it, then four with the line left to the player. */
  const asRoutine = () =>
    attempt(async () => {
      const id = query.id.value
      const name = work.exercise.value?.name
      if (!id || !name) return
      const own = (band.band.routines ?? []).filter((r) => r.name !== name)
      const segments = [
        { name: 'with it', choruses: 4, exercise: id },
        { name: 'without it', choruses: 4 },
      ]
      const problem = await band.edit(`routine: ${name}`, {
        routines: [...own, { name, segments }],
        chosen: name,
      })
      if (problem) throw problem
      await router.push({ name: 'play', params: route.params, query: { ...route.query } })
    })

  /** Takes it away in a format of the server. */
  const takeAway = (format: string, extension: string) =>
    attempt(async () => {
      const body = work.request.value
      if (!body) return
      const name = work.exercise.value?.name || freshName()
      const blob = await answer(
        client.POST('/api/compute/exercise/file/{format}', {
          params: { path: { format } },
          // On paper the tune has its name.
          body: { ...body, chart: tune.chart!, exercise: { ...body.exercise, name } },
          parseAs: 'blob',
        }),
      )
      download(blob as unknown as Blob, `${name}.${extension}`)
    })

  return { notice, gone, keep, copy, remove, bringBack, editByHand, asRoutine, takeAway, freshName }
}

export type ExerciseKeeping = ReturnType<typeof useKeeping>
