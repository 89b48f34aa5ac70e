<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Pictures } from '../../api/client'
import { useWidth } from '../../controls/measure'

/** The minutes of each day, today at the right. */
const props = defineProps<{ days: Pictures['days'] }>()
const svg = ref<SVGSVGElement>()
const { width } = useWidth(svg, 560)
const height = 110
const most = computed(() => Math.max(...props.days.map((d) => d.minutes), 30))
const step = computed(() => width.value / Math.max(props.days.length, 1))
const total = computed(() => Math.round(props.days.slice(-7).reduce((sum, d) => sum + d.minutes, 0)))
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`0 0 ${width} ${height}`"
    role="img"
    :aria-label="`${total} minutes in the last seven days`"
  >
    <line class="floor" x1="0" :x2="width" :y1="height - 4" :y2="height - 4" />
    <rect
      v-for="(d, n) in days"
      :key="d.day"
      :class="{ today: n === days.length - 1 }"
      :x="n * step + 1"
      :width="Math.max(step - 3, 2)"
      :y="height - 4 - ((height - 12) * d.minutes) / most"
      :height="((height - 12) * d.minutes) / most"
      rx="2"
    >
      <title>{{ d.day }}: {{ Math.round(d.minutes) }} minutes</title>
    </rect>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.floor {
  stroke: var(--line);
}
rect {
  fill: var(--now);
}
rect.today {
  fill: var(--next-fill);
}
</style>
