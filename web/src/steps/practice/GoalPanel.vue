<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import {
  answer,
  client,
  Problem,
  type ChartEntry,
  type KeptLick,
  type PracticeSettings,
} from '../../api/client'
import { minutesAhead } from '../../document/clock'

/** What the player works towards, how many new cards come, and the week as a calendar. */
const emit = defineEmits<{ changed: [] }>()
const version = ref(0)
const settings = ref<PracticeSettings>({})
const licks = shallowRef<KeptLick[]>([])
const tunes = shallowRef<ChartEntry[]>([])
const problem = ref('')
const saved = ref(false)

function take(kept: { version: number; settings: PracticeSettings }) {
  version.value = kept.version
  settings.value = kept.settings
}
async function attempt(work: () => Promise<unknown>) {
  try {
    problem.value = ''
    await work()
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
onMounted(() =>
  attempt(async () => {
    const [kept, allLicks, allTunes] = await Promise.all([
      answer(client.GET('/api/practice/settings')),
      answer(client.GET('/api/licks')),
      answer(client.GET('/api/charts')),
    ])
    take(kept)
    licks.value = allLicks.filter((one) => !one.damaged)
    tunes.value = allTunes.filter((one) => !one.damaged)
  }),
)
const keep = async (change: Partial<PracticeSettings>) => {
  const body = { version: version.value, settings: { ...settings.value, ...change } }
  take(await answer(client.PUT('/api/practice/settings', { body })))
}
const set = (change: Partial<PracticeSettings>) =>
  attempt(async () => {
    saved.value = false
    try {
      await keep(change)
    } catch (error) {
      // Another window was first: this one thing is set over what it kept.
      if (!(error instanceof Problem) || error.status !== 412) throw error
      take(await answer(client.GET('/api/practice/settings')))
      await keep(change)
    }
    saved.value = true
    emit('changed')
  })
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
const text = (event: Event) => (event.target as HTMLInputElement).value

const weekdays = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const
const days = ref<string[]>(['mon', 'wed', 'fri'])
const at = ref('19:00')
const minutes = ref(20)
const calendar = computed(() => {
  const query = { days: days.value.join(','), at: at.value, minutes: String(minutes.value) }
  return `/api/practice/calendar?${new URLSearchParams({ ...query, offset: String(minutesAhead()) })}`
})
const toggleDay = (day: string) =>
  (days.value = days.value.includes(day)
    ? days.value.filter((one) => one !== day)
    : weekdays.filter((one) => one === day || days.value.includes(one)))
</script>

<template>
  <section class="goal">
    <p v-if="problem" class="warn" role="alert">{{ problem }}</p>
    <h2>What you work towards</h2>
    <div class="row">
      <label
        >a lick
        <select :value="settings.goalLick ?? 0" @change="set({ goalLick: number($event) || undefined })">
          <option :value="0">none</option>
          <option v-for="one in licks" :key="one.id" :value="one.id">{{ one.lick.name }}</option>
        </select></label
      >
      <label
        >a tune
        <select :value="settings.goalTune ?? 0" @change="set({ goalTune: number($event) || undefined })">
          <option :value="0">none</option>
          <option v-for="one in tunes" :key="one.id" :value="one.id">{{ one.title }}</option>
        </select></label
      >
      <label
        >at
        <input
          type="number"
          min="20"
          max="400"
          aria-label="The tempo that is wanted"
          :value="settings.goalTempo"
          @change="set({ goalTempo: number($event) || undefined })"
        />
        a minute</label
      >
      <label
        >by
        <input
          type="date"
          aria-label="The day it is wanted by"
          :value="settings.goalDay"
          @change="set({ goalDay: text($event) || undefined })"
      /></label>
    </div>
    <p class="quiet">It comes first in every plan until you choose another.</p>
    <h2>New cards</h2>
    <div class="row">
      <label>
        <input
          type="number"
          min="0"
          max="50"
          aria-label="New cards a day"
          :value="settings.newCards ?? 8"
          @change="set({ newCards: number($event) })"
        />
        a day at most</label
      >
      <span v-if="saved" class="quiet" role="status">saved</span>
    </div>
    <h2>The week as a calendar</h2>
    <div class="row">
      <span class="choices" role="group" aria-label="The weekdays">
        <button
          v-for="day in weekdays"
          :key="day"
          type="button"
          class="chip"
          :aria-pressed="days.includes(day)"
          @click="toggleDay(day)"
        >
          {{ day }}
        </button>
      </span>
      <label>at <input v-model="at" type="time" aria-label="When it begins" /></label>
      <label
        ><input v-model.number="minutes" type="number" min="5" max="120" aria-label="How long" />
        minutes</label
      >
      <a v-if="days.length" class="chip" :href="calendar" download="practice week.ics">iCalendar</a>
    </div>
    <p class="quiet">
      Short and often beats long and seldom. Warm up before wide stretches, stop at pain, and ask somebody who
      knows hands if it comes back.
    </p>
  </section>
</template>

<style scoped>
.goal {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}
h2 {
  margin-top: 0.6rem;
  font-size: 1.25rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1.1rem;
}
.choices {
  margin: 0;
}
a.chip {
  color: inherit;
  text-decoration: none;
}
select,
input {
  padding: 0.25rem 0.5rem;
}
input[type='number'] {
  width: 4.6rem;
}
.warn {
  color: var(--next);
}
</style>
