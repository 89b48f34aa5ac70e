<script setup lang="ts">
import { computed } from 'vue'
import type { Position, Shape } from '../api/client'
import { useHands } from '../document/hands'

const props = defineProps<{ position: Position; shape: Shape; strings: number }>()

const hands = useHands()
const turned = computed(() => `scale(${hands.player.leftHanded ? -1 : 1}, ${hands.player.lowOnTop ? -1 : 1})`)

const width = 104
const height = 66
const frets = computed(() => {
  const from = props.position.low
  return Array.from({ length: props.position.high - from + 1 }, (_, index) => from + index)
})
const step = computed(() => (width - 12) / frets.value.length)
const x = (fret: number) => 6 + (fret - props.position.low + 0.5) * step.value
const y = (string: number) => 7 + ((string - 1) * (height - 14)) / (props.strings - 1)
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" aria-hidden="true" :style="{ transform: turned }">
    <line v-for="s in strings" :key="s" class="string" x1="6" :x2="width - 6" :y1="y(s)" :y2="y(s)" />
    <line
      v-for="(fret, index) in frets"
      :key="fret"
      class="wire"
      :class="{ nut: fret === 1 && position.low === 0 }"
      :x1="6 + index * step"
      :x2="6 + index * step"
      :y1="y(1)"
      :y2="y(strings)"
    />
    <rect
      v-for="tone in shape.tones"
      :key="`${tone.string}:${tone.fret}`"
      :class="{ root: tone.degree === 'R' }"
      :x="x(tone.fret) - 6.5"
      :y="y(tone.string) - 3.8"
      width="13"
      height="7.6"
      rx="3.8"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.string,
.wire {
  stroke: var(--line);
  stroke-width: 0.8;
}
.nut {
  stroke: var(--ink);
  stroke-width: 2;
}
rect {
  fill: var(--card);
  stroke: var(--now);
  stroke-width: 1.3;
}
rect.root {
  fill: var(--now);
}
</style>
