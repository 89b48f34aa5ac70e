<script setup lang="ts">
import { computed, ref } from 'vue'
import type { SessionBlock } from '../../api/client'
import { signs } from '../../controls/spelling'
import { moved } from './plan'

/** The blocks of a plan: what is done and how long, and why; the one that is on is lit. */
const props = defineProps<{
  blocks: SessionBlock[]
  /** What may stand in the place of one. */
  others: SessionBlock[]
  at: number | undefined
  left: number | undefined
}>()
const emit = defineEmits<{ change: [blocks: SessionBlock[]] }>()

const open = ref<number>()
const dragged = ref<number>()
/** Blocks before the one that is on are done, and stay. */
const first = computed(() => (props.at === undefined ? 0 : props.at + 1))
const movable = (n: number) => n >= first.value
function drop(to: number) {
  const from = dragged.value
  dragged.value = undefined
  if (from === undefined || !movable(from) || !movable(to)) return
  emit('change', moved(props.blocks, from, to))
}
const shift = (n: number, by: number) => {
  if (!movable(n) || !movable(n + by) || n + by >= props.blocks.length) return
  emit('change', moved(props.blocks, n, n + by))
}
const longer = (n: number, by: number) =>
  emit(
    'change',
    props.blocks.map((b, k) => (k === n ? { ...b, minutes: Math.min(Math.max(b.minutes + by, 1), 60) } : b)),
  )
/** Puts another block in the place of one, as long as that was. */
function replace(n: number, event: Event) {
  const other = props.others[Number((event.target as HTMLSelectElement).value)]
  if (!other) return
  emit(
    'change',
    props.blocks.map((b, k) => (k === n ? { ...other, minutes: b.minutes } : b)),
  )
}
const remove = (n: number) =>
  emit(
    'change',
    props.blocks.filter((_, k) => k !== n),
  )
const clock = (seconds: number) => {
  const s = Math.abs(Math.round(seconds))
  return `${seconds < 0 ? '+' : ''}${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}
</script>

<template>
  <ol class="plan" aria-label="The plan">
    <li
      v-for="(b, n) in blocks"
      :key="n"
      class="block"
      :class="{ on: n === at, done: at !== undefined && n < at }"
      :draggable="movable(n)"
      :aria-current="n === at ? 'step' : undefined"
      @dragstart="dragged = n"
      @dragover.prevent
      @drop="drop(n)"
    >
      <span class="minutes"
        ><b>{{ b.minutes }}</b
        ><small>min</small></span
      >
      <button
        type="button"
        class="what"
        :aria-expanded="open === n"
        :title="b.why"
        @click="open = open === n ? undefined : n"
      >
        <b>{{ signs(b.title) }}</b>
        <small>{{ signs(b.detail ?? '') }}</small>
        <small v-if="open === n" class="why">{{ signs(b.why ?? '') }}</small>
      </button>
      <span v-if="n === at && left !== undefined" class="left tabular" :class="{ late: left < 0 }">{{
        clock(left)
      }}</span>
      <span v-else-if="at !== undefined && n < at" class="tick" aria-label="done">✓</span>
      <span v-if="open === n && movable(n)" class="tools">
        <button type="button" class="chip" :aria-label="`${b.title}: earlier`" @click="shift(n, -1)">
          ↑
        </button>
        <button type="button" class="chip" :aria-label="`${b.title}: later`" @click="shift(n, 1)">↓</button>
        <button type="button" class="chip" :aria-label="`${b.title}: shorter`" @click="longer(n, -1)">
          −
        </button>
        <button type="button" class="chip" :aria-label="`${b.title}: longer`" @click="longer(n, 1)">+</button>
        <select :aria-label="`In the place of ${b.title}`" :value="''" @change="replace(n, $event)">
          <option value="" disabled>another…</option>
          <option v-for="(other, k) in others" :key="k" :value="k">{{ signs(other.title) }}</option>
        </select>
        <button type="button" class="chip" :aria-label="`Leave ${b.title} out`" @click="remove(n)">×</button>
      </span>
    </li>
  </ol>
</template>

<style scoped>
.plan {
  overflow-y: auto;
  max-height: var(--panel-most, 62vh);
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.block {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.9rem;
  padding: 0.36rem 0.7rem;
  border: 2px solid transparent;
  border-radius: 11px;
}
.block.on {
  background: var(--now-tint);
  border-color: var(--now);
}
.block.done {
  color: var(--stone);
}
.minutes {
  display: flex;
  flex-direction: column;
  align-items: center;
  width: 2.2rem;
}
.minutes b {
  font-size: 1.3rem;
  line-height: 1.1;
}
small {
  color: var(--stone);
  font-size: 0.87rem;
}
.what {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  text-align: left;
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
}
.what b {
  font-size: 1.08rem;
}
.why {
  font-style: italic;
}
.left {
  font-weight: 700;
  color: var(--now);
}
.left.late {
  color: var(--next);
}
.tick {
  color: var(--now);
}
.tools {
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
select {
  font: inherit;
  max-width: 8.5rem;
  color: var(--ink);
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 999px;
  padding: 0 0.4rem;
}
</style>
