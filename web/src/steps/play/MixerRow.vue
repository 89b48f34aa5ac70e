<script setup lang="ts">
import { computed } from 'vue'
import { useBand } from '../../document/band'
import { useTune } from '../../document/tune'
import { parts, type Part } from '../../sound/mixer'
import { usePlayer } from '../../sound/player'

/** How loud each part is; a part can be silent, or heard alone. */
const band = useBand()
const tune = useTune()
const player = usePlayer()

const plain = computed(() => tune.choices?.plainLevel ?? 0)
const level = (part: Part) => band.band.levels?.[part] ?? plain.value
function setLevel(part: Part, value: number) {
  const levels = { ...band.band.levels, [part]: value }
  if (value === plain.value) delete levels[part]
  void band.edit(`level of the ${part}`, { levels }, `level ${part}`)
}
const solo = (part: Part) => (player.soloPart = player.soloPart === part ? undefined : part)
</script>

<template>
  <div class="mixer" role="group" aria-label="Levels">
    <div
      v-for="(part, n) in parts"
      :key="part"
      class="part"
      :class="{ off: band.isSilent(part) || (player.soloPart && player.soloPart !== part) }"
    >
      <button
        type="button"
        class="name"
        :aria-pressed="!band.isSilent(part)"
        :title="`${part}: heard or silent (⇧ ${n + 1})`"
        @click="band.toggleSilent(part)"
      >
        {{ part }}
      </button>
      <input
        type="range"
        min="0"
        max="100"
        step="5"
        :value="level(part)"
        :aria-label="`Level of the ${part}`"
        :style="{ '--level': `${level(part)}%` }"
        @input="(event) => setLevel(part, Number((event.target as HTMLInputElement).value))"
      />
      <span v-if="band.isSilent(part)" class="quiet word">off</span>
      <button
        v-else
        type="button"
        class="chip alone"
        :aria-pressed="player.soloPart === part"
        :title="`Hear the ${part} alone`"
        @click="solo(part)"
      >
        solo
      </button>
    </div>
  </div>
</template>

<style scoped>
.mixer {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.part {
  display: flex;
  align-items: center;
  gap: 8px;
}
.name {
  border: 0;
  background: none;
  padding: 2px 0;
  min-width: 3.1rem;
  text-align: left;
  font-weight: 650;
  cursor: pointer;
}
.off .name {
  color: var(--stone);
  text-decoration: line-through;
}
.alone {
  padding: 0.05rem 0.5rem;
  font-size: 0.82rem;
}
.word {
  min-width: 2.6rem;
  font-size: 0.88rem;
}
input[type='range'] {
  appearance: none;
  width: 84px;
  height: 22px;
  background: none;
  cursor: pointer;
}
input::-webkit-slider-runnable-track {
  height: 6px;
  border-radius: 3px;
  background: linear-gradient(90deg, var(--now) var(--level), var(--line) var(--level));
}
input::-moz-range-track {
  height: 6px;
  border-radius: 3px;
  background: linear-gradient(90deg, var(--now) var(--level), var(--line) var(--level));
}
input::-webkit-slider-thumb {
  appearance: none;
  width: 20px;
  height: 20px;
  margin-top: -7px;
  border: 2.5px solid var(--now);
  border-radius: 50%;
  background: var(--card);
}
input::-moz-range-thumb {
  width: 16px;
  height: 16px;
  border: 2.5px solid var(--now);
  border-radius: 50%;
  background: var(--card);
}
.off input {
  filter: grayscale(1);
  opacity: 0.6;
}
</style>
