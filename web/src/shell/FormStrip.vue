<script setup lang="ts">
import { computed } from 'vue'
import type { Change, Moment } from '../api/client'
import { signs } from '../tune/spelling'

const props = defineProps<{
  moments: Moment[]
  now: Moment | undefined
  change: Change | undefined
  playing: number | undefined
}>()
const emit = defineEmits<{ pick: [moment: Moment] }>()

const bars = computed(() => {
  const bars: Moment[][] = []
  for (const moment of props.moments) (bars[moment.bar - 1] ??= []).push(moment)
  return bars
})
const isNow = (m: Moment) =>
  props.change ? props.change.leaving.tick === m.tick : props.now?.tick === m.tick
const isNext = (m: Moment) => props.change?.arriving.tick === m.tick

function says(m: Moment) {
  const role = isNow(m) && props.change ? ', leaving' : isNext(m) ? ', arriving' : ''
  return `Bar ${m.bar}, ${signs(m.chord)}, ${signs(m.roman)}${role}`
}
</script>

<template>
  <ol class="strip" aria-label="The form">
    <li
      v-for="(spans, index) in bars"
      :key="index"
      class="bar"
      :class="{
        split: spans.length > 1,
        playing: playing === index + 1,
        fourth: index % 4 === 3 && index % 12 !== 11,
      }"
    >
      <button
        v-for="m in spans"
        :key="m.tick"
        type="button"
        :style="{ flex: m.beats }"
        :class="{ now: isNow(m), next: isNext(m) }"
        :aria-label="says(m)"
        :title="signs(m.chord)"
        :aria-current="isNow(m) ? 'true' : undefined"
        @click="emit('pick', m)"
      >
        <span class="chord">{{ signs(m.chord) }}</span>
        <span class="roman">{{ signs(m.roman) }}</span>
      </button>
      <span v-if="index % 4 === 0" class="number" aria-hidden="true">{{ index + 1 }}</span>
    </li>
  </ol>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(12, minmax(0, 1fr));
  gap: 18px 4px;
  margin-bottom: 20px;
}
.bar {
  position: relative;
  display: flex;
  height: 48px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--card);
}
.bar.fourth {
  margin-right: 10px;
}
button {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 4px;
  min-width: 0;
  border: 2px solid transparent;
  border-radius: 7px;
  background: none;
  padding: 11px 8px 0;
  cursor: pointer;
}
button:hover {
  border-color: var(--line);
}
.chord {
  font-size: 1.25rem;
  font-weight: 750;
}
.roman {
  font-size: 0.8rem;
  color: var(--stone);
}
/* Two chords and more share a bar: smaller, the numeral below. */
.split button {
  flex-direction: column;
  justify-content: flex-start;
  gap: 0;
  padding: 5px 2px 0 4px;
}
.split .chord {
  font-size: 0.8rem;
  letter-spacing: -0.03em;
}
.now {
  background: var(--now-tint);
  border-color: var(--now);
}
.next {
  background: var(--next-tint);
  border-color: var(--next-fill);
}
.bar.playing {
  box-shadow: 0 0 0 3px var(--lit);
}
.number {
  position: absolute;
  top: 49px;
  left: 1px;
  font-size: 0.72rem;
  color: var(--stone);
}
</style>
