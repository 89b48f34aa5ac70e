import { computed, watch } from 'vue'
import { answer, client, type Lick, type PassRequest, type Routine } from '../api/client'
import { useBand } from '../document/band'
import { useExercises } from '../document/exercises'
import { useLicks } from '../document/licks'
import { useSolos, type SoloDocument } from '../document/solos'
import { useTune } from '../document/tune'

/** At most so many licks are offered to a pass. */
const mostLicks = 64

/** What is played over the band: a solo of the tune, or licks of the library. */
export function useTuneLine() {
  const tune = useTune()
  const band = useBand()
  const solos = useSolos()
  const licks = useLicks()
  const exercises = useExercises()

  const trades = computed(() => band.chosen?.routine.segments.some((s) => s.licks) ?? false)
  watch(trades, (now) => now && !licks.loaded && void licks.load().catch(tune.tell), { immediate: true })

  const walks = computed(() => band.chosen?.routine.segments.some((s) => s.exercise) ?? false)
  watch(walks, (now) => now && !exercises.loaded && void exercises.load().catch(tune.tell), {
    immediate: true,
  })

  /** The licks that a routine may play. */
  function licksFor(routine: Routine): Lick[] | undefined {
    if (!routine.segments.some((s) => s.licks)) return undefined
    return licks.readable
      .filter((l) => l.lick.meter === tune.chart?.meter)
      .slice(0, mostLicks)
      .map((l) => l.lick)
  }

  /** The exercises that a routine names. */
  function exercisesFor(routine: Routine) {
    const named = new Set(routine.segments.flatMap((s) => s.exercise || []))
    const found = exercises.readable.filter((e) => named.has(e.id))
    return found.length ? found.map(({ id, exercise }) => ({ id, exercise })) : undefined
  }

  /** The solo as it lies over the tune where it is now, and what it was asked for. */
  let known: { key: string; choruses: Promise<SoloDocument['solo']['choruses']> } | undefined
  function choruses(document: SoloDocument) {
    const to = { chart: tune.music!, hands: tune.hands }
    const key = JSON.stringify([document, to])
    if (known?.key !== key) {
      const { solo, chart, hands } = document
      known = {
        key,
        choruses: answer(
          client.POST('/api/compute/solo/transposed', { body: { solo, from: { chart, hands }, to } }),
        ).then((moved) => moved.solo.choruses),
      }
    }
    return known.choruses
  }

  /** The choruses of the solo that is played over the band, if there is one. */
  async function played() {
    const id = band.band.line
    if (!id || !tune.music) return []
    const one = solos.documents.of(id)
    if (!one.body.value) await one.load()
    return one.body.value ? choruses(one.body.value) : []
  }

  /** The line of a chorus, counted from 0: the choruses of the solo go round. */
  async function lineOf(chorus: number): Promise<PassRequest['line']> {
    const all = await played()
    if (!all.length || !tune.music) return undefined
    const joined = await answer(
      client.POST('/api/compute/solo/line', {
        body: { chart: tune.music, hands: tune.hands, choruses: [all[chorus % all.length]!] },
      }),
    )
    return { meter: joined.phrase.meter, events: joined.phrase.events, start: 0 }
  }

  /** The lines of all its choruses. */
  async function allLines() {
    const all = await Promise.all((await played()).map((_, chorus) => lineOf(chorus)))
    return all.length ? all.flatMap((line) => line ?? []) : undefined
  }

  return { licksFor, exercisesFor, lineOf, allLines }
}
