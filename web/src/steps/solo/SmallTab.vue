<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ChorusView } from '../../api/client'
import { barsInRow, firstOfRow } from '../../controls/rows'
import { useWidth } from '../../controls/measure'
import { useTune } from '../../document/tune'
import { endOf } from '../../tab/barlines'
import { fretText } from '../../tab/tab'

/** Four bars of a chorus as small tab, to be compared at a glance. */
const props = defineProps<{ view: ChorusView; strings: string[]; bar: number }>()
const svg = ref<SVGSVGElement>()
const { width } = useWidth(svg, 340)
const gap = 12
const first = computed(() => firstOfRow(props.bar) - 1)
const tune = useTune()
const bars = computed(() => (tune.read?.played ?? []).slice(first.value, first.value + barsInRow))
const from = computed(() => bars.value[0]?.tick ?? 0)
const to = computed(() => endOf(bars.value.at(-1)))
const x = (tick: number) => 6 + ((tick - from.value) / (to.value - from.value)) * (width.value - 10)
const notes = computed(() => props.view.tab.events.filter((e) => e.tick >= from.value && e.tick < to.value))
const height = computed(() => 26 + (props.strings.length - 1) * gap)
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`0 0 ${width} ${height}`"
    role="img"
    :aria-label="`Bars ${first + 1} to ${first + barsInRow} as tab`"
  >
    <line
      v-for="n in strings.length"
      :key="n"
      class="string"
      x1="2"
      :x2="width - 2"
      :y1="18 + (n - 1) * gap"
      :y2="18 + (n - 1) * gap"
    />
    <g v-for="b in bars" :key="b.number">
      <line class="bar" :x1="x(b.tick) - 3" :x2="x(b.tick) - 3" y1="18" :y2="height - 8" />
      <text class="number" :x="x(b.tick) - 1" y="11">{{ b.number }}</text>
    </g>
    <g
      v-for="(e, n) in notes"
      :key="n"
      :transform="`translate(${x(e.tick) + 4} ${18 + (e.string - 1) * gap})`"
      :class="e.role"
    >
      <rect class="paper" x="-6" y="-5.5" width="12" height="11" rx="3" />
      <text class="fret" y="4.2">{{ fretText(e) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.string {
  stroke: var(--string);
  stroke-width: 0.7;
}
.bar {
  stroke: var(--stone);
  stroke-width: 0.8;
}
.number {
  font-size: 12px;
  fill: var(--stone);
}
.paper {
  fill: var(--card);
}
.fret {
  font-size: 12px;
  font-weight: 600;
  text-anchor: middle;
  fill: var(--ink);
}
.target .fret {
  fill: var(--next);
  font-weight: 800;
}
</style>
