<script setup lang="ts">
import { computed } from 'vue'
import { signs } from '../controls/spelling'
import type { WrittenLick } from '../api/client'
import type { Cursor } from './cursor'
import type { Grid } from './grid'
import { classUnder, degreeUnder, fretText, techniqueSign } from './tab'

/** Tab that is written into: time runs evenly, two bars at once, the cursor among the strings. */
const props = defineProps<{
  written: WrittenLick
  cursor: Cursor
  grid: Grid
  sounding: number | undefined
  width: number
}>()
const emit = defineEmits<{ pick: [index: number] }>()

const top = 44
const gap = 17
const right = 12
const y = (string: number) => top + (string - 1) * gap
const strings = computed(() => props.written.neck.strings)
const bottom = computed(() => y(strings.value.length))
const height = computed(() => bottom.value + 37)

const from = computed(() => props.grid.from)
const to = computed(() => props.grid.to)
const x = (tick: number) => props.grid.x(tick)
const events = computed(() =>
  props.written.tab.events
    .map((event, index) => ({ event, index }))
    .filter(({ event }) => event.tick >= from.value && event.tick < to.value),
)
const beats = computed(() => {
  const all = []
  for (let tick = from.value; tick < to.value; tick += props.written.tab.beatTicks)
    all.push({
      tick,
      text: String(((tick - from.value) % props.grid.barTicks) / props.written.tab.beatTicks + 1),
    })
  return all
})
const chords = computed(() => {
  const shown: { tick: number; text: string }[] = []
  const over = props.written.lick.chords ?? []
  over.forEach((one, n) => {
    const next = over[n + 1]?.tick ?? Infinity
    const tick = n === 0 ? Math.min(one.tick, 0) : one.tick
    if (next > from.value && tick < to.value)
      shown.push({ tick: Math.max(tick, from.value), text: one.chord })
  })
  return shown
})
const selection = computed(() => {
  if (!props.cursor.selected.value) return undefined
  const range = props.cursor.range.value
  const a = Math.max(range.from, from.value)
  const b = Math.min(range.to, to.value)
  return b > a ? { x: x(a) - 11, width: x(b - 1) - x(a) + 12 } : undefined
})
const shown = (tick: number) => tick >= from.value && tick < to.value

/** Where a click falls: the nearest string, and the nearest step or note. */
function place(event: MouseEvent) {
  const box = (event.currentTarget as SVGElement).getBoundingClientRect()
  const scale = props.width / box.width
  const px = (event.clientX - box.left) * scale
  const py = (event.clientY - box.top) * scale
  props.cursor.goToString(Math.round((py - top) / gap) + 1)
  const step = Math.max(props.cursor.ticks.value, 1)
  const grid: number[] = []
  for (let bar = from.value; bar < to.value; bar += props.grid.barTicks)
    for (let tick = bar; tick < bar + props.grid.barTicks; tick += step) grid.push(tick)
  grid.push(...events.value.map((e) => e.event.tick))
  const near = grid.reduce((a, b) => (Math.abs(x(b) - px) < Math.abs(x(a) - px) ? b : a), grid[0] ?? 0)
  props.cursor.go(near, event.shiftKey)
}
</script>

<template>
  <svg
    class="editor"
    :viewBox="`0 0 ${width} ${height}`"
    role="application"
    aria-label="The lick, to be written"
    aria-describedby="written-here"
    tabindex="0"
    @click="place"
  >
    <g aria-hidden="true">
      <rect
        v-if="selection"
        class="selection"
        :x="selection.x"
        :width="selection.width"
        :y="top - 12"
        :height="bottom - top + 24"
        rx="6"
      />
      <template v-for="(name, index) in strings" :key="index">
        <line class="string" x1="26" :x2="width" :y1="y(index + 1)" :y2="y(index + 1)" />
        <text aria-hidden="true" class="open" x="14" :y="y(index + 1) + 4">{{ signs(name) }}</text>
      </template>
      <template v-for="bar in grid.bars" :key="bar.tick">
        <line class="barline" :x1="x(bar.tick) - 17" :x2="x(bar.tick) - 17" :y1="top" :y2="bottom" />
        <text v-if="bar.number < 1" aria-hidden="true" class="pickup" :x="x(bar.tick)" y="11" dx="16">
          pickup
        </text>
      </template>
      <text
        v-for="beat in beats"
        :key="beat.tick"
        aria-hidden="true"
        class="beat"
        :class="{ one: beat.text === '1' }"
        :x="x(beat.tick)"
        y="23"
      >
        {{ beat.text }}
      </text>
      <text
        v-for="chord in chords"
        :key="chord.tick"
        aria-hidden="true"
        class="chord"
        :x="x(chord.tick) - 6"
        y="11"
      >
        {{ signs(chord.text) }}
      </text>
      <rect
        v-if="shown(cursor.tick.value)"
        class="cursor"
        :x="x(cursor.tick.value) - 12"
        :y="y(cursor.string.value) - 10"
        width="24"
        height="20"
        rx="6"
      />
    </g>
    <g
      v-for="{ event, index } in events"
      :key="index"
      class="note"
      :class="[event.class, { lit: index === sounding }]"
      :transform="`translate(${x(event.tick)} 0)`"
      :aria-label="signs(event.spoken)"
      :data-event="index"
      role="button"
      tabindex="-1"
      @click="emit('pick', index)"
    >
      <rect
        class="held"
        x="10"
        :y="y(event.string) - 1"
        :width="
          Math.max(
            Math.min(x(Math.min(event.tick + event.ticks, to) - 1), width - right) - x(event.tick) - 12,
            0,
          )
        "
        height="2"
      />
      <rect class="paper" x="-10" :y="y(event.string) - 8" width="20" height="16" rx="5" />
      <text aria-hidden="true" class="fret" :class="{ small: event.grace }" :y="y(event.string) + 5">
        {{ fretText(event) }}
      </text>
      <text v-if="techniqueSign(event)" aria-hidden="true" class="technique" :y="y(event.string) - 9">
        {{ techniqueSign(event) }}
      </text>
      <text aria-hidden="true" class="degree" :y="bottom + 21">
        {{ signs(degreeUnder(written.tab.events, index)) }}
      </text>
      <text aria-hidden="true" class="class" :y="bottom + 34">
        {{ classUnder(written.tab.events, index) }}
      </text>
    </g>
  </svg>
</template>

<style scoped src="./tab.css"></style>
<style scoped>
.editor {
  display: block;
  width: 100%;
  outline: none;
  border-radius: 8px;
  cursor: text;
}
.editor:focus-visible {
  box-shadow: 0 0 0 2px var(--now);
}
.open,
.beat,
.pickup {
  font-size: 12px;
  fill: var(--stone);
  text-anchor: middle;
}
.pickup {
  text-anchor: start;
}
.selection {
  fill: var(--next-tint);
}
.cursor {
  fill: var(--now-tint);
  stroke: var(--now);
  stroke-width: 2;
}
.held {
  fill: var(--stone);
  opacity: 0.55;
}
.fret {
  font-size: 15px;
}
.fret.small {
  font-size: 12px;
}
.degree {
  font-size: 14px;
}
.class {
  font-size: 12px;
}
</style>
