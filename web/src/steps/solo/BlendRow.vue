<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Ruler } from './ruler'

/** The blend of each bar, drawn by hand: the box at the bottom, the chords at the top. */
const props = defineProps<{ ruler: Ruler; blend: number[]; top: number; height: number }>()
const emit = defineEmits<{
  /** The blend of every bar, once it has been drawn. */
  blend: [values: number[]]
}>()

/** The blend while it is drawn: it is planned by once the hand rests. */
const drawing = ref<number[]>()
const blend = computed(() => drawing.value ?? props.blend)
const resting = 350
let timer: ReturnType<typeof setTimeout> | undefined
function draw(bar: number, value: number) {
  const next = [...blend.value]
  next[bar - 1] = Math.round(Math.min(Math.max(value, 0), 1) * 20) / 20
  drawing.value = next
  clearTimeout(timer)
  timer = setTimeout(settle, resting)
}
function settle() {
  clearTimeout(timer)
  if (drawing.value) emit('blend', drawing.value)
}
watch(
  () => props.blend,
  () => (drawing.value = undefined),
)
onBeforeUnmount(settle)

const curve = computed(() => {
  const { bars, x, to, from } = props.ruler
  const bottom = props.top + props.height
  const level = (bar: number) => bottom - props.height * (blend.value[bar - 1] ?? 0.5)
  const points = bars.map((b) => ({ x: x(b.tick + b.ticks / 2), y: level(b.number) }))
  const first = points[0]
  const last = points.at(-1)
  if (!first || !last) return { line: '', area: '' }
  const all = [{ x: x(from), y: first.y }, ...points, { x: x(to), y: last.y }]
  const line = all.map((p) => `${p.x},${p.y}`).join(' ')
  return { line, area: `${x(from)},${bottom} ${line} ${x(to)},${bottom}` }
})

function click(event: MouseEvent, bar: number) {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  draw(bar, 1 - (event.clientY - box.top) / box.height)
}
function key(event: KeyboardEvent, bar: number) {
  const by = event.key === 'ArrowUp' ? 0.05 : event.key === 'ArrowDown' ? -0.05 : 0
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  draw(bar, (blend.value[bar - 1] ?? 0.5) + by)
}
</script>

<template>
  <g v-roving="'.level'" role="group" aria-label="Blend">
    <polygon class="area" :points="curve.area" />
    <polyline class="curve" :points="curve.line" />
    <g
      v-for="b in ruler.bars"
      :key="b.number"
      role="slider"
      class="level"
      :aria-label="`Blend of bar ${b.number}`"
      :aria-valuenow="blend[b.number - 1]"
      aria-valuemin="0"
      aria-valuemax="1"
      @click="click($event, b.number)"
      @keydown="key($event, b.number)"
    >
      <rect
        :x="ruler.x(b.tick)"
        :y="top"
        :width="ruler.x(b.tick + b.ticks) - ruler.x(b.tick)"
        :height="height"
      />
      <text aria-hidden="true" class="value" :x="ruler.x(b.tick + b.ticks / 2)" :y="top + height - 4">
        {{ Math.round((blend[b.number - 1] ?? 0.5) * 100) }}
      </text>
    </g>
  </g>
</template>

<style scoped>
.area {
  fill: var(--now-tint);
}
.curve {
  fill: none;
  stroke: var(--now);
  stroke-width: 1.8;
}
.level {
  cursor: ns-resize;
}
.level rect {
  fill: transparent;
}
.value {
  font-size: 12px;
  text-anchor: middle;
  fill: var(--stone);
}
.level:focus-visible {
  outline: none;
}
.level:focus-visible rect {
  stroke: var(--now);
  stroke-width: 2.6;
}
</style>
