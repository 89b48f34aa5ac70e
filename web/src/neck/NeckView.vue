<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, type ComponentPublicInstance } from 'vue'
import type { Neck, Place } from '../api/client'
import { useHands } from '../document/hands'
import { signs } from '../controls/spelling'
import { arcOf } from './arrows'
import { layOut, neighbour, type Span } from './geometry'
import NeckBoard from './NeckBoard.vue'
import NeckMark from './NeckMark.vue'
import { placeKey, type Arrow, type Mark } from './marks'

const props = withDefaults(
  defineProps<{
    instrument: Neck
    span: Span
    marks: Mark[]
    arrows?: Arrow[]
    /** What the neck shows, for screen readers. */
    label: string
    spacing?: number
  }>(),
  { arrows: () => [], spacing: 36 },
)
const emit = defineEmits<{ pick: [place: Place] }>()

const hands = useHands()
const turn = computed(() => ({
  mirrored: hands.player.leftHanded ?? false,
  lowOnTop: hands.player.lowOnTop ?? false,
}))

/** Drawn for the width there is, so that its notes stay as large as they are. */
const usualWidth = 1148
const width = ref(usualWidth)
const svg = ref<SVGSVGElement>()
const sizes = new ResizeObserver(([entry]) => {
  const measured = Math.round(entry?.contentRect.width ?? 0)
  if (measured > 0) width.value = measured
})
onMounted(() => svg.value && sizes.observe(svg.value))
onBeforeUnmount(() => sizes.disconnect())
const g = computed(() => layOut(props.instrument, props.span, width.value, props.spacing, turn.value))

// Dots first, pebbles over them, lit ones last.
const layer = { empty: -1, ghost: 0, box: 1, leaving: 2, tone: 2, held: 3, arriving: 4 }
const drawn = computed(() =>
  props.marks
    .filter((mark) => mark.fret <= g.value.frets)
    .sort((a, b) => Number(a.lit ?? false) - Number(b.lit ?? false) || layer[a.form] - layer[b.form]),
)

// One stop for the Tab key; arrows move among the notes from there.
const current = ref<string>()
const stop = computed(() => {
  const keys = props.marks.map(placeKey)
  return current.value && keys.includes(current.value) ? current.value : keys[0]
})
const elements = new Map<string, SVGGElement>()
function keep(mark: Mark, drawn: unknown) {
  const element = (drawn as ComponentPublicInstance | null)?.$el
  if (element instanceof SVGGElement) elements.set(placeKey(mark), element)
}
function move(mark: Mark, event: KeyboardEvent) {
  if (event.key === 'Enter') {
    event.preventDefault()
    emit('pick', { string: mark.string, fret: mark.fret })
    return
  }
  const next = neighbour(props.marks, mark, event.key, turn.value)
  if (!next) return
  event.preventDefault()
  event.stopPropagation()
  current.value = placeKey(next)
  elements.get(placeKey(next))?.focus()
}

const arcs = computed(() =>
  props.arrows.map((arrow) => ({ arrow, arc: arcOf(arrow, props.marks, g.value, g.value.room) })),
)
</script>

<template>
  <svg ref="svg" class="neck" :viewBox="`0 0 ${g.width} ${g.height}`" role="group" :aria-label="label">
    <defs>
      <marker
        id="arrow-head"
        viewBox="0 0 8 8"
        refX="6.5"
        refY="4"
        markerWidth="11"
        markerHeight="11"
        markerUnits="userSpaceOnUse"
        orient="auto"
      >
        <path d="M0 0 L8 4 L0 8 z" fill="var(--ink)" />
      </marker>
    </defs>

    <NeckBoard :instrument="instrument" :span="span" :g="g" />

    <NeckMark
      v-for="mark in drawn"
      :key="`${mark.form} ${placeKey(mark)}`"
      :ref="(one) => keep(mark, one)"
      :mark="mark"
      :room="g.room(mark.fret)"
      :transform="`translate(${g.x(mark.fret)} ${g.y(mark.string)})`"
      :tabindex="placeKey(mark) === stop ? 0 : -1"
      :data-place="placeKey(mark)"
      @click="emit('pick', { string: mark.string, fret: mark.fret })"
      @focus="current = placeKey(mark)"
      @keydown="move(mark, $event)"
    />

    <g
      v-for="one in arcs"
      :key="one.arrow.spoken"
      class="arrow"
      :class="{ strong: one.arrow.strong, faint: one.arrow.faint }"
    >
      <title>{{ signs(one.arrow.spoken) }}</title>
      <path :d="one.arc.path" marker-end="url(#arrow-head)" />
      <text :x="one.arc.label.x" :y="one.arc.label.y" aria-hidden="true">{{ one.arrow.text }}</text>
    </g>
  </svg>
</template>

<style scoped>
.neck {
  display: block;
  width: 100%;
  height: auto;
  user-select: none;
}
.arrow path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.arrow text {
  font-size: 12px;
  font-weight: 700;
  text-anchor: middle;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 4px;
}
.arrow.faint {
  opacity: 0.45;
}
.arrow.strong path {
  stroke-width: 3;
}
</style>
