<script setup lang="ts">
import type { TakesWork } from './work'

/** How the simulated player plays: as it is written, or with chosen faults. */
const props = defineProps<{ work: TakesWork }>()
const { faults } = props.work
type Fault = Exclude<keyof typeof faults.value, 'seed'>
const fields: { name: Fault; text: string; unit: string; step: number; share?: boolean }[] = [
  { name: 'late', text: 'late', unit: 'ms, early below 0', step: 5 },
  { name: 'uneven', text: 'uneven', unit: 'ms', step: 1 },
  { name: 'drift', text: 'drags', unit: 'ms a bar, rushes below 0', step: 1 },
  { name: 'swing', text: 'swing', unit: 'to 1; 0 for the band’s', step: 0.1 },
  { name: 'flat', text: 'bends fall short', unit: 'cents', step: 5 },
  { name: 'missed', text: 'notes left out', unit: '%', step: 1, share: true },
  { name: 'wrong', text: 'wrong notes', unit: '%', step: 1, share: true },
  { name: 'soft', text: 'softer', unit: 'dB', step: 1 },
]
const shown = (f: (typeof fields)[number]) =>
  f.share ? Math.round(100 * faults.value[f.name]) : faults.value[f.name]
function set(f: (typeof fields)[number], event: Event) {
  const value = (event.target as HTMLInputElement).valueAsNumber
  if (Number.isFinite(value)) faults.value = { ...faults.value, [f.name]: f.share ? value / 100 : value }
}
const clean = () => {
  const none = Object.fromEntries(fields.map((f) => [f.name, 0])) as Record<Fault, number>
  faults.value = { ...none, seed: faults.value.seed }
}
</script>

<template>
  <div class="standin" role="group" aria-label="How the simulated player plays">
    <label v-for="f in fields" :key="f.name">
      {{ f.text }}
      <input type="number" :step="f.step" :value="shown(f)" @change="set(f, $event)" />
      <span class="quiet">{{ f.unit }}</span>
    </label>
    <span class="acts">
      <button type="button" class="chip" @click="clean()">no faults</button>
      <button type="button" class="chip" @click="faults = { ...faults, seed: faults.seed + 1 }">
        another player (it is number {{ faults.seed }})
      </button>
    </span>
  </div>
</template>

<style scoped>
.standin {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px 22px;
}
@container main (max-width: 58rem) {
  .standin {
    grid-template-columns: 1fr;
  }
}
label {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px;
}
input {
  width: 4.6em;
  padding: 3px 8px;
}
.acts {
  grid-column: 1 / -1;
  display: flex;
  gap: 10px;
}
</style>
