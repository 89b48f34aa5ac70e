<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Neck, Place } from '../api/client'
import { useHands } from '../document/hands'
import { signs } from '../controls/spelling'
import { layOut, neighbour, type Span } from './geometry'
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

const width = 1148
const g = computed(() => layOut(props.instrument, props.span, width, props.spacing, turn.value))
const strings = computed(() => props.instrument.strings.map((name, index) => ({ name, string: index + 1 })))
const frets = computed(() => Array.from({ length: props.instrument.frets }, (_, index) => index + 1))
const wide = (fret: number) => fret >= props.span.low && fret <= props.span.high
const inCore = (fret: number) => fret >= props.span.core && fret <= props.span.coreEnd
const inlays = [3, 5, 7, 9, 12, 15, 17, 19, 21]

// Dots first, pebbles over them, lit ones last.
const layer = { empty: -1, ghost: 0, box: 1, leaving: 2, tone: 2, held: 3, arriving: 4 }
const drawn = computed(() =>
  [...props.marks].sort(
    (a, b) => Number(a.lit ?? false) - Number(b.lit ?? false) || layer[a.form] - layer[b.form],
  ),
)

// One stop for the Tab key; arrows move among the notes from there.
const current = ref<string>()
const stop = computed(() => {
  const keys = props.marks.map(placeKey)
  return current.value && keys.includes(current.value) ? current.value : keys[0]
})
const elements = new Map<string, SVGGElement>()
function keep(mark: Mark, element: unknown) {
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

function size(mark: Mark) {
  const w = mark.second
    ? 62
    : mark.form === 'ghost'
      ? 34
      : mark.text.length > 2 || (mark.small ?? '').length > 1
        ? 52 + 4 * (mark.small ?? '').length
        : 46
  return { w: Math.min(w, wide(mark.fret) ? 70 : 24), h: mark.form === 'ghost' ? 18 : 26 }
}

/** The x and width of a stretch between two places, whichever way the neck is turned. */
const stretch = (a: number, b: number) => ({ x: Math.min(a, b), width: Math.abs(b - a) })

/** An arc from pebble to pebble, bowed to one side so that arrows do not hide strings. */
function arc(arrow: Arrow) {
  const from = { x: g.value.x(arrow.from.fret), y: g.value.y(arrow.from.string) }
  const to = { x: g.value.x(arrow.to.fret), y: g.value.y(arrow.to.string) }
  const along = { x: to.x - from.x, y: to.y - from.y }
  const length = Math.hypot(along.x, along.y) || 1
  // Between neighbours on one fret there is no room: the arrow goes round their ends.
  if (Math.abs(along.x) < 1 && length < 1.5 * g.value.spacing) {
    const side = from.x + (along.y < 0 ? 30 : -30)
    const out = along.y < 0 ? 20 : -20
    return {
      path: `M${side} ${from.y} q${out} ${along.y / 2} 0 ${along.y}`,
      label: { x: side + 1.1 * out, y: (from.y + to.y) / 2 + 4 },
    }
  }
  const unit = { x: along.x / length, y: along.y / length }
  // Leave and reach the pebbles at their edge: they are wider than high.
  const edge = (place: Place) => {
    const mark = props.marks.find((m) => placeKey(m) === placeKey(place))
    return 4 + 1 / Math.hypot(unit.x / ((mark ? size(mark).w : 46) / 2 + 3), unit.y / 15)
  }
  const a = { x: from.x + unit.x * edge(arrow.from), y: from.y + unit.y * edge(arrow.from) }
  const b = { x: to.x - unit.x * edge(arrow.to), y: to.y - unit.y * edge(arrow.to) }
  const bow = Math.abs(unit.x) > 0.5 ? -11 : 8
  const middle = { x: (a.x + b.x) / 2 + (Math.abs(unit.x) > 0.5 ? 0 : bow), y: (a.y + b.y) / 2 + bow }
  return {
    path: `M${a.x} ${a.y} Q${middle.x} ${middle.y} ${b.x} ${b.y}`,
    label: { x: middle.x, y: middle.y - 1 },
  }
}
</script>

<template>
  <svg class="neck" :viewBox="`0 0 ${g.width} ${g.height}`" role="group" :aria-label="label">
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

    <g aria-hidden="true">
      <rect
        class="reach"
        v-bind="stretch(g.wire(Math.max(span.low - 1, 0)), g.wire(span.high))"
        y="2"
        :height="g.bottom + 14"
        rx="10"
      />
      <rect
        class="core"
        v-bind="stretch(span.core === 0 ? g.at(8) : g.wire(span.core - 1), g.wire(span.coreEnd))"
        y="2"
        :height="g.bottom + 14"
        rx="10"
      />
      <line class="nut" :x1="g.nut" :x2="g.nut" :y1="g.top - 12" :y2="g.bottom + 12" />
      <line
        v-for="fret in frets"
        :key="fret"
        class="wire"
        :x1="g.wire(fret)"
        :x2="g.wire(fret)"
        :y1="g.top - 12"
        :y2="g.bottom + 12"
      />
      <template v-for="fret in frets" :key="fret">
        <text class="fret" :class="{ core: inCore(fret), wide: wide(fret) }" :x="g.x(fret)" :y="g.height - 4">
          {{ fret }}
        </text>
        <circle
          v-if="inlays.includes(fret)"
          class="inlay"
          :cx="g.x(fret) - (fret === 12 ? 4 : 0)"
          :cy="g.bottom + 20"
          r="2.4"
        />
        <circle v-if="fret === 12" class="inlay" :cx="g.x(fret) + 4" :cy="g.bottom + 20" r="2.4" />
      </template>
      <template v-for="{ name, string } in strings" :key="string">
        <line
          class="string"
          :x1="g.at(span.low === 0 ? 20 : 56)"
          :x2="g.at(g.width)"
          :y1="g.y(string)"
          :y2="g.y(string)"
          :stroke-width="0.8 + string * 0.28"
        />
        <text class="open" :x="g.at(span.low === 0 ? 5 : 40)" :y="g.y(string) + 4">{{ signs(name) }}</text>
      </template>
    </g>

    <g
      v-for="mark in drawn"
      :key="`${mark.form} ${placeKey(mark)}`"
      :ref="(element) => keep(mark, element)"
      class="mark"
      :class="[mark.form, mark.class, { root: mark.root, lit: mark.lit, chosen: mark.chosen }]"
      :transform="`translate(${g.x(mark.fret)} ${g.y(mark.string)})`"
      role="button"
      :tabindex="placeKey(mark) === stop ? 0 : -1"
      :aria-label="signs(mark.spoken)"
      :data-place="placeKey(mark)"
      @click="emit('pick', { string: mark.string, fret: mark.fret })"
      @focus="current = placeKey(mark)"
      @keydown="move(mark, $event)"
    >
      <title>{{ signs(mark.spoken) }}</title>
      <template v-if="mark.form === 'empty'">
        <circle class="hit" r="15" />
        <circle class="spot" r="6" />
      </template>
      <template v-else-if="mark.form === 'box'">
        <circle class="hit" r="13" />
        <circle class="dot" r="7.5" />
        <path v-if="mark.class === 'blue'" class="half" d="M0 -7.5 A7.5 7.5 0 0 0 0 7.5 z" />
        <text class="tiny" x="11" y="-5">{{ signs(mark.text) }}</text>
      </template>
      <template v-else>
        <rect
          v-if="mark.root || mark.chosen"
          class="outline"
          :x="-size(mark).w / 2 - 3.5"
          :y="-size(mark).h / 2 - 3.5"
          :width="size(mark).w + 7"
          :height="size(mark).h + 7"
          :rx="size(mark).h / 2 + 3.5"
        />
        <rect
          class="pebble"
          :x="-size(mark).w / 2"
          :y="-size(mark).h / 2"
          :width="size(mark).w"
          :height="size(mark).h"
          :rx="size(mark).h / 2"
        />
        <template v-if="mark.second">
          <path class="arrived" d="M0 -13 H18 A13 13 0 0 1 18 13 H0 z" />
          <text class="degree" x="-15" y="5.5">{{ signs(mark.text) }}</text>
          <text class="degree onto" x="14" y="5.5">{{ signs(mark.second) }}</text>
        </template>
        <template v-else>
          <text class="degree" :x="mark.small ? -2 - 2 * mark.small.length : 0" y="5.5">
            {{ signs(mark.text) }}
          </text>
          <text v-if="mark.small" class="small" :x="size(mark).w / 2 - 6 - 3 * mark.small.length" y="9">
            {{ mark.small }}
          </text>
        </template>
        <text v-if="mark.caption" class="caption" :x="0" y="-17">{{ mark.caption }}</text>
      </template>
    </g>

    <g
      v-for="arrow in arrows"
      :key="arrow.spoken"
      class="arrow"
      :class="{ strong: arrow.strong, faint: arrow.faint }"
    >
      <title>{{ signs(arrow.spoken) }}</title>
      <path :d="arc(arrow).path" marker-end="url(#arrow-head)" />
      <text :x="arc(arrow).label.x" :y="arc(arrow).label.y" aria-hidden="true">{{ arrow.text }}</text>
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
.reach {
  fill: var(--shade);
}
.core {
  fill: var(--card);
}
.nut {
  stroke: var(--ink);
  stroke-width: 4;
}
.wire {
  stroke: var(--line);
  stroke-width: 1.4;
}
.string {
  stroke: var(--string);
}
.inlay {
  fill: var(--line);
}
.open,
.fret {
  fill: var(--stone);
  font-size: 12px;
}
.open {
  font-weight: 600;
  text-anchor: middle;
}
.fret {
  font-size: 11px;
  text-anchor: middle;
  font-variant-numeric: tabular-nums;
}
.fret.wide {
  font-size: 13px;
}
.fret.core {
  fill: var(--ink);
  font-weight: 700;
  font-size: 14px;
}
.mark {
  cursor: pointer;
  outline: none;
}
.mark:focus-visible .pebble,
.mark:focus-visible .dot {
  stroke: var(--ink);
  stroke-width: 3.5;
}
.pebble {
  fill: var(--card);
  stroke: var(--now);
  stroke-width: 2.2;
}
.outline {
  fill: none;
  stroke: var(--now);
  stroke-width: 1.3;
}
.degree {
  text-anchor: middle;
  font-size: 16px;
  font-weight: 700;
  fill: var(--now);
}
.small {
  text-anchor: middle;
  font-size: 10.5px;
  fill: var(--stone);
}
.caption {
  text-anchor: middle;
  font-size: 11.5px;
  font-weight: 650;
  fill: var(--next);
}
.colour .pebble {
  stroke-dasharray: 4 3;
}
.arriving .pebble,
.arrived {
  fill: var(--next-fill);
  stroke: var(--next-fill);
}
.arriving .degree,
.arriving .small,
.onto {
  fill: var(--on-fill);
}
.arriving .outline {
  stroke: var(--next-fill);
}
.arrived {
  stroke: none;
}
.held .pebble {
  stroke: var(--now);
}
.tone.outside .pebble,
.tone.lean .pebble {
  stroke: var(--stone);
}
.tone.outside .degree,
.tone.lean .degree {
  fill: var(--stone);
}
.tone.outside .pebble {
  stroke-dasharray: 2 3;
}
.ghost .pebble {
  stroke: var(--stone);
  stroke-width: 1.2;
  stroke-dasharray: 3 3;
  fill: var(--paper);
}
.ghost .degree {
  font-size: 12px;
  font-weight: 500;
  fill: var(--stone);
}
.ghost .degree {
  transform: translateY(-1px);
}
.hit {
  fill: transparent;
}
.spot {
  fill: none;
  stroke: none;
}
.mark:hover .spot,
.mark:focus-visible .spot {
  stroke: var(--stone);
  stroke-width: 2;
}
/* Where the player is: a ring that nothing else has. */
.empty.chosen .spot {
  fill: var(--ink);
  stroke: var(--ink);
}
.dot {
  fill: var(--stone);
  stroke: var(--stone);
  stroke-width: 1.5;
}
.box.blue .dot,
.box.outside .dot,
.box.colour .dot {
  fill: var(--card);
}
.box.colour .dot {
  stroke-dasharray: 3 2;
}
.box.outside .dot {
  stroke-dasharray: 1 2.4;
}
.half {
  fill: var(--stone);
}
.tiny {
  font-size: 11.5px;
  fill: var(--stone);
  paint-order: stroke;
  stroke: var(--card);
  stroke-width: 3px;
}
.lit .pebble,
.lit .dot {
  fill: var(--lit);
  stroke: var(--ink);
  stroke-width: 3;
}
.lit .degree,
.lit .small {
  fill: #27231f;
}
.chosen .outline {
  stroke: var(--ink);
  stroke-width: 2;
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
