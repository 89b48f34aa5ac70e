<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, useTemplateRef } from 'vue'
import type { Exercise } from '../../api/client'
import { useExercises } from '../../document/exercises'
import { useTune } from '../../document/tune'
import type { ExerciseQuery } from './address'
import { writeExercise, type ExerciseWork } from './work'

/** The exercises to begin with: one's own, and those that are ready made. */
const props = defineProps<{ work: ExerciseWork; query: ExerciseQuery }>()
const tune = useTune()
const exercises = useExercises()

const asked = computed(() => props.query.find.value.toLowerCase().split(/\s+/).filter(Boolean))
const holds = (...texts: string[]) => {
  const all = texts.join(' ').toLowerCase()
  return asked.value.every((word) => all.includes(word))
}
const own = computed(() =>
  exercises.readable.filter((one) =>
    holds(one.exercise.name, one.exercise.about, one.text, ...(one.exercise.tags ?? [])),
  ),
)
const ready = computed(() =>
  (tune.choices?.exercises.readyMade ?? []).filter((one) => holds(one.name, one.about)),
)
/** Whether a ready-made one is open just as it is. */
const isOpen = (one: Exercise) =>
  !props.query.id.value &&
  writeExercise({ ...one, about: '' }) === writeExercise({ ...props.work.exercise.value!, about: '' })

const field = useTemplateRef<{ $el: HTMLElement }>('field')
defineExpose({ find: () => field.value?.$el.focus() })
</script>

<template>
  <div>
    <InputText
      ref="field"
      class="find"
      size="small"
      type="search"
      aria-label="Find exercises"
      placeholder="find: thirds, up, triads …"
      :model-value="query.find.value"
      @update:model-value="(content) => query.set({ find: content ?? '' })"
    />
    <template v-if="own.length">
      <h2>Mine</h2>
      <ul aria-label="My exercises">
        <li v-for="one in own" :key="one.id">
          <button
            type="button"
            :aria-current="query.id.value === one.id ? 'true' : undefined"
            :title="one.exercise.about || one.text"
            @click="work.open(one.id)"
          >
            {{ one.exercise.name }}
            <small>{{ (one.exercise.tags ?? []).join(', ') || one.text }}</small>
          </button>
        </li>
      </ul>
    </template>
    <p v-for="one in exercises.damaged" :key="one.id" class="quiet">
      {{ one.exercise.name }} cannot be read: {{ one.damaged }}
      <a :href="`/api/exercises/${one.id}/text`" download>its text</a>
    </p>
    <h2>Ready made</h2>
    <ul aria-label="Ready-made exercises">
      <li v-for="one in ready" :key="one.name">
        <button type="button" :aria-current="isOpen(one) ? 'true' : undefined" @click="work.tryOut(one)">
          {{ one.name }} <small>{{ one.about }}</small>
        </button>
      </li>
    </ul>
    <p v-if="!own.length && !ready.length" class="quiet">Nothing has all of these words.</p>
  </div>
</template>

<style scoped>
.find {
  width: 100%;
  margin-bottom: 6px;
}
h2 {
  font-size: 0.92rem;
  color: var(--stone);
  font-weight: 600;
  margin: 6px 0 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
button {
  width: 100%;
  border: 0;
  border-left: 4px solid transparent;
  border-radius: 6px;
  background: none;
  padding: 4px 6px;
  text-align: left;
  cursor: pointer;
  display: flex;
  flex-direction: column;
}
button:hover {
  background: var(--shade);
}
button[aria-current] {
  border-left-color: var(--now);
  background: var(--now-tint);
  font-weight: 650;
}
small {
  color: var(--stone);
  font-weight: 400;
  font-size: 0.82rem;
}
</style>
