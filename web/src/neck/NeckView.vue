<script setup lang="ts">
import { computed, nextTick, ref, watch, type ComponentPublicInstance } from 'vue'
import type { Neck, Place } from '../api/client'
import { useHands } from '../document/hands'
import { useWidth } from '../controls/measure'
import { useMedia } from '../controls/media'
import { usePinch } from '../controls/pinch'
import { signs } from '../controls/spelling'
import { arcOf } from './arrows'
import { fingerSpacing, layOut, leastWidth, neighbour, type Geometry, type Span } from './geometry'
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
    /** It is read and not pressed: its strings stand as close as they may. */
    reading?: boolean
  }>(),
  { arrows: () => [], spacing: 36, reading: false },
)
const emit = defineEmits<{ pick: [place: Place] }>()

const hands = useHands()
const turn = computed(() => ({
  mirrored: hands.player.leftHanded ?? false,
  lowOnTop: hands.player.lowOnTop ?? false,
}))

/**
 * Drawn for the width there is, so that its notes stay as large as they are; where the frets of the
 * span need more, or two fingers spread it, it is wider and is swiped.
 */
const frame = ref<HTMLElement>()
const { width, scale } = useWidth(frame, 1148)
const { spread, start, follow } = usePinch({ least: 1, most: 3 })
const touched = useMedia('(pointer: coarse)')
const drawnWidth = computed(() => {
  const least = touched.value || width.value < 800 ? leastWidth(props.instrument, props.span, width.value) : 0
  return Math.max(width.value, least) * spread.value
})
const spacing = computed(() =>
  touched.value && !props.reading ? Math.max(props.spacing, fingerSpacing) : props.spacing,
)
/** The same as long as what it is made from is the same, so that what lies on it is not drawn again. */
const g = computed<Geometry & { from?: string }>((before) => {
  const given = [
    props.instrument,
    props.span,
    drawnWidth.value,
    spacing.value,
    turn.value,
    width.value,
  ] as const
  const from = JSON.stringify(given)
  return before?.from === from ? before : { ...layOut(...given), from }
})
/** Of a neck that is swiped the frets under the hand are in sight. */
watch(
  () => [props.span.core, props.span.coreEnd, drawnWidth.value, width.value, turn.value.mirrored] as const,
  async () => {
    await nextTick()
    const middle = (g.value.x(props.span.core) + g.value.x(props.span.coreEnd)) / 2
    if (frame.value && drawnWidth.value > width.value)
      frame.value.scrollLeft = (middle - width.value / 2) * scale.value
  },
  { immediate: true },
)

/** The marks, each the object that it was before where nothing of it has changed. */
const steady = computed<Mark[]>((before) => {
  const known = new Map((before ?? []).map((mark) => [JSON.stringify(mark), mark]))
  return props.marks.map((mark) => known.get(JSON.stringify(mark)) ?? mark)
})
// Dots first, pebbles over them, lit ones last.
const layer = { empty: -1, ghost: 0, box: 1, leaving: 2, tone: 2, held: 3, arriving: 4 }
const drawn = computed(() =>
  steady.value
    .filter((mark) => mark.fret <= g.value.frets)
    .sort((a, b) => Number(a.lit ?? false) - Number(b.lit ?? false) || layer[a.form] - layer[b.form]),
)

/** The notes as they are read out: from the lowest string up, on each up the neck. */
const listed = computed(() =>
  props.marks
    .filter((mark) => mark.form !== 'empty' && mark.form !== 'ghost')
    .sort((a, b) => b.string - a.string || a.fret - b.fret),
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
  <div
    ref="frame"
    class="window"
    :class="{ swiped: drawnWidth > width, reading }"
    @touchstart="start"
    @touchmove="follow"
    @touchend="start"
  >
    <svg
      class="neck"
      :viewBox="`0 0 ${g.width} ${g.height}`"
      :style="{ width: `${(100 * drawnWidth) / width}%` }"
      role="group"
      :aria-label="label"
    >
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
        v-memo="[mark, g, placeKey(mark) === stop]"
        :mark="mark"
        :room="g.room(mark.fret)"
        :tall="g.spacing"
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
    <ol class="spoken" :aria-label="`${label}, as a list`">
      <li v-for="mark in listed" :key="`${mark.form} ${placeKey(mark)}`">{{ signs(mark.spoken) }}</li>
    </ol>
  </div>
</template>

<style scoped>
.window {
  position: relative;
}
.swiped {
  overflow: auto hidden;
  scrollbar-width: thin;
}
.neck {
  display: block;
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
