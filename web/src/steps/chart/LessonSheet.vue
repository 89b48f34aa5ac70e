<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue'
import { useView } from '../../address/view'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { useExercises } from '../../document/exercises'
import { useLicks } from '../../document/licks'
import { useSolos } from '../../document/solos'
import { useTune } from '../../document/tune'

/** A sheet for the stand or for a pupil: chosen parts of the tune as one PDF. */
const tune = useTune()
const view = useView()
const licks = useLicks()
const exercises = useExercises()
const solos = useSolos()

const parts = reactive({ chart: true, maps: true, path: true, large: false })
const paper = ref('A4')
const chosen = reactive({ licks: [] as number[], exercises: [] as number[], solos: [] as number[] })
const problem = ref('')

onMounted(async () => {
  try {
    await Promise.all([
      licks.loaded || licks.load(),
      exercises.loaded || exercises.load(),
      solos.list(tune.id),
    ])
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
})

const groups = computed(() => [
  {
    key: 'licks' as const,
    title: 'Licks',
    all: licks.readable.map((l) => ({ id: l.id, name: l.lick.name })),
  },
  {
    key: 'exercises' as const,
    title: 'Exercises',
    all: exercises.readable.map((e) => ({ id: e.id, name: e.exercise.name || e.text })),
  },
  {
    key: 'solos' as const,
    title: 'Solos over this tune',
    all: solos.entries.filter((s) => !s.damaged).map((s) => ({ id: s.id, name: s.name })),
  },
])
const nothing = computed(
  () =>
    !parts.chart &&
    !parts.maps &&
    !parts.path &&
    !chosen.licks.length &&
    !chosen.exercises.length &&
    !chosen.solos.length,
)
const href = computed(() => {
  const query = new URLSearchParams({ paper: paper.value, position: view.position.value?.id ?? '' })
  if (parts.large) query.set('large', 'true')
  if (parts.chart) query.set('chart', 'true')
  if (parts.maps) query.set('maps', 'true')
  if (parts.path) query.set('strategy', view.strategy.value)
  for (const key of ['licks', 'exercises', 'solos'] as const)
    if (chosen[key].length) query.set(key, chosen[key].join(','))
  return `/api/charts/${tune.id}/lesson?${query}`
})

/** The sheet is of what is saved, so what is on its way is waited for. */
async function take(event: MouseEvent) {
  if (nothing.value) return event.preventDefault()
  if (tune.saveState === 'saved') return
  event.preventDefault()
  if (await tune.settled()) location.assign(href.value)
}
</script>

<template>
  <h2>Lesson sheet</h2>
  <p class="quiet">Chosen parts of this tune as one PDF, for the stand or for a pupil.</p>
  <div class="parts">
    <label><input v-model="parts.chart" type="checkbox" /> the chart</label>
    <label><input v-model="parts.maps" type="checkbox" /> every chord in five positions</label>
    <label><input v-model="parts.path" type="checkbox" /> where to land, {{ view.strategy.value }}</label>
  </div>
  <template v-for="group in groups" :key="group.key">
    <details v-if="group.all.length">
      <summary>
        {{ group.title }}
        <span v-if="chosen[group.key].length" class="quiet">{{ chosen[group.key].length }} chosen</span>
      </summary>
      <ul>
        <li v-for="one in group.all" :key="one.id">
          <label><input v-model="chosen[group.key]" type="checkbox" :value="one.id" /> {{ one.name }}</label>
        </li>
      </ul>
    </details>
  </template>
  <p class="make">
    <PillSelect
      label="Paper"
      :chosen="paper"
      :options="[
        { value: 'A4', text: 'A4' },
        { value: 'Letter', text: 'Letter' },
      ]"
      @choose="(one) => (paper = one)"
    />
    <label><input v-model="parts.large" type="checkbox" /> large print</label>
    <a class="chip go" :href="href" :aria-disabled="nothing" download @click="take">Make the PDF</a>
  </p>
  <p v-if="problem" role="alert">{{ signs(problem) }}</p>
</template>

<style scoped>
h2 {
  margin: 0.4rem 0 0;
}
.parts {
  display: flex;
  flex-direction: column;
  margin: 0.3rem 0;
}
details ul {
  max-height: 9rem;
  overflow-y: auto;
  padding-left: 0.6rem;
}
summary {
  cursor: pointer;
}
.make {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 0.9rem;
  margin: 0.5rem 0 1rem;
}
.go {
  font-weight: 650;
}
.go[aria-disabled='true'] {
  color: var(--stone);
  cursor: default;
}
</style>
