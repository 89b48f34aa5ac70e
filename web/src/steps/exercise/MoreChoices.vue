<script setup lang="ts">
import { computed } from 'vue'
import type { Exercise } from '../../api/client'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { useTune } from '../../document/tune'
import ChoiceRow from './ChoiceRow.vue'
import type { ExerciseWork } from './work'

/** The rest of the choices: the order, what leads where, ornaments, and the time. */
const props = defineProps<{ work: ExerciseWork; exercise: Exercise }>()
const tune = useTune()
const choices = computed(() => tune.choices!.exercises)

const setIn =
  <Part extends 'order' | 'ornaments' | 'time'>(part: Part) =>
  (label: string, change: Partial<Exercise[Part]>) =>
    void props.work.edit(label, (now) => ({ ...now, [part]: { ...now[part], ...change } }))
const setOrder = setIn('order')
const setOrnaments = setIn('ornaments')
const setTime = setIn('time')

const techniques = [
  { name: 'slurs', title: 'slurs', about: 'hammer-ons and pull-offs; the first note on a string is picked' },
  { name: 'slides', title: 'slides', about: 'slide where the hand moves along a string' },
  { name: 'trill', title: 'trills', about: 'notes of a beat or more are trilled' },
  { name: 'skipStrings', title: 'skip strings', about: 'a string is left out between every two' },
] as const

const leadable = [1, 3, 5, 7, 9, 11, 13]
const led = computed(() => props.exercise.ornaments.to ?? [5])
function toggleLed(degree: number) {
  const now = led.value
  const next = now.includes(degree)
    ? now.filter((one) => one !== degree)
    : [...now, degree].sort((a, b) => a - b)
  if (next.length) setOrnaments('the tones led into', { to: next })
}
const runs = ['3', '4', '5', '6', '7', '8', '9']
const accents = [
  { value: '0', text: 'none' },
  ...[2, 3, 4, 5, 6].map((n) => ({ value: String(n), text: `every ${n}` })),
]
const rests = [
  { value: '0 0', text: 'none' },
  ...['3 1', '5 1', '6 2', '7 1', '8 4'].map((one) => {
    const [play, rest] = one.split(' ')
    return { value: one, text: `play ${play}, leave out ${rest}` }
  }),
]
const resting = computed(() => {
  const { play = 0, rest = 0 } = props.exercise.time
  return rest ? `${play} ${rest}` : '0 0'
})
function chooseRests(text: string) {
  const [play, rest] = text.split(' ').map(Number)
  setTime('the rests', { play: play || undefined, rest: rest || undefined })
}
</script>

<template>
  <div>
    <ChoiceRow
      label="Way"
      :choices="choices.directions"
      :chosen="exercise.order.direction"
      @choose="(direction) => setOrder('the direction', { direction })"
    />
    <ChoiceRow
      label="Begin"
      :choices="choices.starts"
      :chosen="exercise.order.start"
      @choose="(start) => setOrder('the start', { start })"
    />
    <ChoiceRow
      label="Turned"
      :choices="choices.turns"
      :chosen="exercise.order.turn"
      @choose="(turn) => setOrder('the way round', { turn })"
    />
    <ChoiceRow
      label="Into next"
      :choices="choices.into"
      :chosen="exercise.into"
      @choose="(into) => void work.edit('into the next chord', (now) => ({ ...now, into }))"
    />
    <ChoiceRow
      label="Before"
      :choices="choices.approaches"
      :chosen="exercise.ornaments.before"
      @choose="(before) => setOrnaments('what comes before', { before })"
    >
      <template v-if="exercise.ornaments.before">
        <button
          v-for="degree in leadable"
          :key="degree"
          type="button"
          class="chip"
          :aria-label="`Before the ${degree === 1 ? 'root' : degree}`"
          :aria-pressed="led.includes(degree)"
          @click="toggleLed(degree)"
        >
          {{ degree === 1 ? 'R' : degree }}
        </button>
      </template>
    </ChoiceRow>
    <ChoiceRow
      label="Tail"
      :choices="choices.tails"
      :chosen="exercise.ornaments.tail"
      @choose="(tail) => setOrnaments('the tail', { tail })"
    />
    <div class="row">
      <span class="label">Hands</span>
      <span class="beside">
        <button
          v-for="t in techniques"
          :key="t.name"
          type="button"
          class="chip"
          :title="t.about"
          :aria-pressed="exercise.ornaments[t.name] ?? false"
          @click="setOrnaments(t.title, { [t.name]: !exercise.ornaments[t.name] || undefined })"
        >
          {{ t.title }}
        </button>
      </span>
    </div>
    <ChoiceRow
      label="Time"
      :choices="choices.patterns"
      :chosen="exercise.time.pattern"
      @choose="(pattern) => setTime('the use of the time', { pattern })"
    >
      <PillSelect
        v-if="exercise.time.pattern === 'counted back'"
        label="Notes of a run"
        :chosen="String(exercise.time.notes ?? 5)"
        :options="named(runs)"
        @choose="(one) => setTime('notes of a run', { notes: Number(one) })"
      />
    </ChoiceRow>
    <div class="row">
      <span class="label">Accent</span>
      <PillSelect
        label="Accent"
        :chosen="String(exercise.time.accent ?? 0)"
        :options="accents"
        @choose="(one) => setTime('the accents', { accent: Number(one) || undefined })"
      />
    </div>
    <div class="row">
      <span class="label">Rests</span>
      <PillSelect label="Rests" :chosen="resting" :options="rests" @choose="chooseRests" />
    </div>
    <div class="row">
      <span class="label">Ending</span>
      <button
        type="button"
        class="chip"
        :aria-pressed="!exercise.time.noEnding"
        title="The last note is a root or a third, held to the end of the form"
        @click="setTime('the ending', { noEnding: !exercise.time.noEnding || undefined })"
      >
        a held last note
      </button>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 4.2rem auto;
  justify-content: start;
  align-items: center;
  margin-bottom: 8px;
}
.label {
  color: var(--stone);
  font-size: 0.9rem;
}
.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.chip {
  padding: 0.14rem 0.55rem;
}
</style>
