import { computed, ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client, type Etude, type EtudeRequest } from '../../api/client'
import { useView } from '../../address/view'
import { useExercises } from '../../document/exercises'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import { usePlayer } from '../../sound/player'

/** A part that an etude may be made of: an exercise or a lick. */
export interface PartChoice {
  key: string
  name: string
  part: EtudeRequest['parts'][number]
}

/** Licks and exercises joined over the form of the tune, several at a time, to be kept as solos. */
export function useEtudes() {
  const tune = useTune()
  const view = useView()
  const player = usePlayer()
  const exercises = useExercises()
  const licks = useLicks()
  const router = useRouter()
  const route = useRoute()

  /** The exercises and licks that may be taken, the player's own first. */
  const choices = computed<PartChoice[]>(() => [
    ...exercises.readable.map(({ id, exercise }) => ({
      key: `mine ${id}`,
      name: exercise.name,
      part: { exercise },
    })),
    ...(tune.choices?.exercises.readyMade ?? [])
      .filter((e) => !e.over.kind)
      .map((exercise) => ({ key: `ready ${exercise.name}`, name: exercise.name, part: { exercise } })),
    ...licks.readable
      .filter((l) => l.lick.meter === tune.chart?.meter)
      .map(({ id, lick }) => ({ key: `lick ${id}`, name: lick.name, part: { lick } })),
  ])
  const taken = ref<string[]>([])
  const toggle = (key: string) =>
    (taken.value = taken.value.includes(key)
      ? taken.value.filter((one) => one !== key)
      : [...taken.value, key])
  const partBars = ref(2)
  const choruses = ref(1)
  const ending = ref('')
  const seed = ref(1)
  const made = shallowRef<Etude[]>([])
  const notice = ref('')
  const hearing = ref<number>()

  async function attempt(work: () => Promise<unknown>) {
    try {
      notice.value = ''
      await work()
    } catch (error) {
      notice.value = error instanceof Error ? error.message : String(error)
    }
  }
  /** Makes etudes of what is taken, others each time. */
  const make = () =>
    attempt(async () => {
      const parts = taken.value.flatMap((key) => choices.value.find((c) => c.key === key)?.part ?? [])
      if (!tune.music || !parts.length) return
      const got = await answer(
        client.POST('/api/compute/solo/etude', {
          body: {
            ...{ chart: tune.music, hands: tune.hands, position: view.position.value?.id, parts },
            ...{ partBars: partBars.value, choruses: choruses.value, seed: seed.value },
            ending: ending.value || undefined,
          },
        }),
      )
      seed.value += 10
      made.value = got.etudes
    })

  const name = (etude: Etude) => [...new Set(etude.names)].join(', ').slice(0, 60)
  const hear = (n: number) =>
    attempt(async () => {
      const etude = made.value[n]
      if (!etude || !tune.chart || !tune.read) return
      if (!player.silent && hearing.value === n) return void player.stop()
      const on = { chart: tune.music!, hands: tune.hands }
      const joined = await answer(
        client.POST('/api/compute/solo/line', { body: { ...on, choruses: etude.choruses } }),
      )
      hearing.value = n
      await player.play({
        chart: tune.chart,
        ...{ from: 1, bars: tune.read.facts.bars * etude.choruses.length, countIn: 1 },
        line: { meter: joined.phrase.meter, events: joined.phrase.events, start: 0 },
      })
    })
  /** Keeps one as a solo, and opens it there. */
  const keep = (n: number) =>
    attempt(async () => {
      const etude = made.value[n]
      if (!etude || !tune.chart) return
      const kept = await answer(
        client.POST('/api/solos', {
          body: {
            ...{ chartId: tune.id, chart: tune.chart, hands: tune.hands },
            solo: { name: `Etude: ${name(etude)}`.slice(0, 60), choruses: etude.choruses },
          },
        }),
      )
      await router.push({
        name: 'solo',
        params: route.params,
        query: { ...route.query, 'solo.id': String(kept.id) },
      })
    })

  return { choices, taken, toggle, partBars, choruses, ending, made, notice, hearing, name, make, hear, keep }
}

export type Etudes = ReturnType<typeof useEtudes>
