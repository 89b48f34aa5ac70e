<script setup lang="ts">
import { computed, onMounted } from 'vue'
import type { Segment } from '../../api/client'
import PillSelect from '../../controls/PillSelect.vue'
import { named } from '../../controls/options'
import { useExercises } from '../../document/exercises'
import { useTune } from '../../document/tune'
import { parts } from '../../sound/mixer'
import SegmentEndFields from './SegmentEndFields.vue'

/** One segment of a routine: how long it is, how it is played, and what changes at its end. */
const props = defineProps<{ segment: Segment; first: boolean; last: boolean }>()
const emit = defineEmits<{
  set: [to: Segment, gesture?: string]
  remove: []
  move: [by: number]
  close: []
}>()
const tune = useTune()
const exercises = useExercises()
onMounted(() => exercises.loaded || void exercises.load().catch(tune.tell))

function set(change: Partial<Segment>, gesture?: string) {
  const next = { ...props.segment, ...change }
  const filled = Object.entries(next).filter(([, v]) => v !== undefined && v !== '' && v !== 0 && v !== false)
  emit('set', Object.fromEntries(filled) as Segment, gesture)
}
const units = ['choruses', 'bars', 'minutes', 'until I go on'] as const
type Unit = (typeof units)[number]
const unit = computed<Unit>(() => {
  const { choruses, bars, minutes } = props.segment
  return choruses ? 'choruses' : bars ? 'bars' : minutes ? 'minutes' : 'until I go on'
})
const length = computed(() => props.segment.choruses || props.segment.bars || props.segment.minutes || 1)
function setLength(to: Unit, count: number) {
  set(
    {
      choruses: to === 'choruses' ? count : undefined,
      bars: to === 'bars' ? count : undefined,
      minutes: to === 'minutes' ? count : undefined,
      from: to === 'bars' ? props.segment.from : undefined,
    },
    'length',
  )
}
const number = (event: Event) => {
  const value = Number((event.target as HTMLInputElement).value)
  return Number.isFinite(value) && value !== 0 ? value : undefined
}
function toggle(part: string) {
  const silent = props.segment.silent ?? []
  const next = silent.includes(part) ? silent.filter((p) => p !== part) : [...silent, part]
  set({ silent: next.length ? next : undefined })
}
const asBefore = 'as before'
const keys = computed(() => named([asBefore, ...(tune.choices?.tonics[tune.chart?.key.mode ?? ''] ?? [])]))
const mine = 'as I chose'
const views = computed(() => named([mine, ...(tune.choices?.stageViews ?? [])]))
const chords = computed(() => [
  { value: '0', text: 'the tune' },
  ...(tune.map?.chords ?? []).map((c, n) => ({ value: String(n + 1), text: `${c.chord} alone` })),
])
const walks = computed(() => [
  { value: '0', text: 'none' },
  ...exercises.readable.map((e) => ({ value: String(e.id), text: e.exercise.name, ownName: true })),
])
const aims = [
  { value: '0', text: 'my strategy' },
  { value: '1', text: 'the root' },
  { value: '3', text: 'the 3' },
  { value: '5', text: 'the 5' },
  { value: '7', text: 'the 7' },
]
</script>

<template>
  <fieldset class="editor">
    <legend class="hidden">The segment</legend>
    <label>
      <span class="quiet">name</span>
      <input
        class="text"
        :value="segment.name"
        maxlength="60"
        @change="(event) => set({ name: (event.target as HTMLInputElement).value.trim() })"
      />
    </label>
    <label>
      <span class="quiet">for</span>
      <input
        v-if="unit !== 'until I go on'"
        type="number"
        min="1"
        :step="unit === 'minutes' ? 0.5 : 1"
        :value="length"
        aria-label="How many"
        @change="(event) => setLength(unit, number(event) ?? 1)"
      />
      <PillSelect
        label="Choruses, bars or minutes"
        :chosen="unit"
        :options="units.map((value) => ({ value, text: value }))"
        @choose="(to) => setLength(to, to === 'bars' ? 8 : 2)"
      />
    </label>
    <label>
      <span class="quiet">over</span>
      <PillSelect
        label="The tune or one chord"
        :chosen="String(segment.chord ?? 0)"
        :options="chords"
        @choose="(n) => set({ chord: Number(n) })"
      />
    </label>
    <label>
      <span class="quiet">tempo</span>
      <input
        type="number"
        :min="tune.choices?.tempo.least"
        :max="tune.choices?.tempo.most"
        :value="segment.tempo"
        placeholder="as before"
        @change="(event) => set({ tempo: number(event) }, 'tempo')"
      />
    </label>
    <label>
      <span class="quiet">key</span>
      <PillSelect
        label="Key of the segment"
        :chosen="segment.key || asBefore"
        :options="keys"
        @choose="(key) => set({ key: key === asBefore ? undefined : key })"
      />
    </label>
    <label>
      <span class="quiet">shows</span>
      <PillSelect
        label="What the stage shows"
        :chosen="segment.view || mine"
        :options="views"
        @choose="(view) => set({ view: view === mine ? undefined : view })"
      />
    </label>
    <label>
      <span class="quiet">land on</span>
      <PillSelect
        label="What to land on"
        :chosen="String(segment.aim ?? 0)"
        :options="aims"
        @choose="(aim) => set({ aim: Number(aim) })"
      />
    </label>
    <label v-if="exercises.readable.length">
      <span class="quiet">exercise</span>
      <PillSelect
        label="The exercise that the line plays"
        :chosen="String(segment.exercise ?? 0)"
        :options="walks"
        @choose="(id) => set({ exercise: Number(id) })"
      />
    </label>
    <span class="group" role="group" aria-label="Parts that play">
      <span class="quiet">plays</span>
      <button
        v-for="part in parts"
        :key="part"
        type="button"
        class="chip"
        :aria-pressed="!segment.silent?.includes(part)"
        @click="toggle(part)"
      >
        {{ part }}
      </button>
    </span>
    <label>
      <span class="quiet">trade, bars each</span>
      <input
        type="number"
        min="0"
        :value="segment.tradeBars"
        placeholder="none"
        @change="
          (event) => set({ tradeBars: number(event), licks: number(event) ? segment.licks : undefined })
        "
      />
    </label>
    <button
      v-if="segment.tradeBars"
      type="button"
      class="chip"
      :aria-pressed="Boolean(segment.licks)"
      title="Licks of the library are played, and you answer"
      @click="set({ licks: !segment.licks })"
    >
      with licks
    </button>
    <button
      type="button"
      class="chip"
      :aria-pressed="Boolean(segment.stopTime)"
      @click="set({ stopTime: !segment.stopTime })"
    >
      stop-time
    </button>
    <SegmentEndFields :end="segment.end" @set="(end, gesture) => set({ end }, gesture)" />
    <span class="group acts">
      <button type="button" class="chip" :disabled="first" @click="$emit('move', -1)">← earlier</button>
      <button type="button" class="chip" :disabled="last" @click="$emit('move', 1)">later →</button>
      <button type="button" class="chip" :disabled="first && last" @click="$emit('remove')">delete</button>
      <button type="button" class="chip" @click="$emit('close')">done</button>
    </span>
  </fieldset>
</template>

<style scoped>
.editor {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin: 0 0 6px;
  padding: 8px 12px;
  border: 1px solid var(--line);
  border-radius: 10px;
  font-size: 0.93rem;
}
.hidden {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
label,
.editor :deep(.group) {
  display: flex;
  align-items: center;
  gap: 6px;
}
.acts {
  margin-left: auto;
}
.editor :deep(input) {
  font: inherit;
  color: inherit;
  width: 4.6rem;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--card);
  padding: 0.18rem 0.2rem 0.18rem 0.7rem;
}
.editor .text {
  width: 11rem;
}
.editor :deep(.chip) {
  padding: 0.14rem 0.6rem;
}
</style>
