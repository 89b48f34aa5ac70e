<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ItemTempos } from '../../api/client'
import { useWidth } from '../../controls/measure'

/** The clean tempo of a lick or a tune over the days, with its goal. */
const props = defineProps<{ item: ItemTempos }>()

const svg = ref<SVGSVGElement>()
const { width } = useWidth(svg, 560)
const [height, left, right] = [150, 8, 52]
const days = computed(() => props.item.points.map((p) => Date.parse(p.day)))
const line = computed(() => {
  const { points, goal } = props.item
  const tempos = points.map((p) => p.tempo)
  const low = Math.min(...tempos, goal || Infinity) * 0.92
  const high = Math.max(...tempos, goal) * 1.04
  const from = days.value[0] ?? 0
  const span = Math.max((days.value.at(-1) ?? 0) - from, 1)
  const x = (n: number) => left + ((width.value - left - right) * ((days.value[n] ?? 0) - from)) / span
  const y = (tempo: number) => height - 14 - ((height - 34) * (tempo - low)) / Math.max(high - low, 1)
  return { dots: points.map((p, n) => ({ ...p, x: x(n), y: y(p.tempo) })), goal: goal ? y(goal) : undefined }
})
const last = computed(() => line.value.dots.at(-1))
</script>

<template>
  <svg
    v-if="item.points.length"
    ref="svg"
    :viewBox="`0 0 ${width} ${height}`"
    role="img"
    :aria-label="`${item.item}: ${item.points.map((p) => `${p.day} ${p.tempo}`).join(', ')}${item.goal ? `; goal ${item.goal}` : ''}`"
  >
    <line class="floor" x1="0" :x2="width" :y1="height - 8" :y2="height - 8" />
    <template v-if="line.goal !== undefined">
      <line class="goal" :x1="left" :x2="width - right" :y1="line.goal" :y2="line.goal" />
      <text class="goal" :x="width - right + 6" :y="line.goal + 5">{{ item.goal }}</text>
    </template>
    <polyline class="line" :points="line.dots.map((d) => `${d.x},${d.y}`).join(' ')" />
    <circle v-for="d in line.dots" :key="d.day" class="dot" :cx="d.x" :cy="d.y" r="4" />
    <text v-if="last" class="last" :x="last.x + 9" :y="last.y + 5">{{ last.tempo }}</text>
  </svg>
  <p v-else class="quiet">No clean tempo is noted yet.</p>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.floor {
  stroke: var(--line);
}
line.goal {
  stroke: var(--next);
  stroke-dasharray: 6 5;
  stroke-width: 2;
}
text.goal {
  fill: var(--next);
  font-size: 14px;
  font-weight: 700;
}
.line {
  fill: none;
  stroke: var(--now);
  stroke-width: 2.5;
}
.dot {
  fill: var(--now);
}
.last {
  fill: var(--now);
  font-size: 15px;
  font-weight: 700;
}
</style>
