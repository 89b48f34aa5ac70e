<script setup lang="ts">
import { computed } from 'vue'
import { signs } from '../controls/spelling'
import { rowMeasures } from './measures'
import { classUnder, degreeUnder, fretText, layOutTab, techniqueSign, type TabLine } from './tab'

/** One line of a tab, within a drawing. */
const props = defineProps<{
  line: TabLine
  /** The index of its first note in the whole tab; what is chosen and so on counts from there. */
  first: number
  width: number
  strings: string[]
  sounding: number | undefined
  chosen: number | undefined
  marked: number[]
  dense: boolean
  /** The note that the Tab key goes to. */
  stop: number | undefined
}>()
const emit = defineEmits<{ pick: [index: number]; focus: [index: number] }>()

const { top, y, height: heightOf } = rowMeasures(props.dense)
const height = computed(() => heightOf(props.strings.length))
const layout = computed(() => layOutTab(props.line, props.width))
const bottom = computed(() => y(props.strings.length))

const chords = computed(() => {
  const shown: { x: number; text: string }[] = []
  let before = ''
  props.line.events.forEach((event, index) => {
    if (event.chord !== before) shown.push({ x: layout.value.x[index] ?? 0, text: event.chord })
    before = event.chord
  })
  return shown
})
</script>

<template>
  <g>
    <g aria-hidden="true">
      <template v-for="(name, index) in strings" :key="index">
        <line class="string" x1="30" :x2="width" :y1="y(index + 1)" :y2="y(index + 1)" />
        <text aria-hidden="true" class="open" x="18" :y="y(index + 1) + 4">{{ signs(name) }}</text>
      </template>
      <template v-for="beat in layout.beats" :key="beat.x">
        <line
          v-if="beat.bar && beat.x > 60"
          class="barline"
          :x1="beat.x - 20"
          :x2="beat.x - 20"
          :y1="top"
          :y2="bottom"
        />
        <text aria-hidden="true" class="beat" :class="{ one: beat.bar }" :x="beat.x" :y="dense ? 26 : 29">{{
          beat.text
        }}</text>
      </template>
      <text v-for="chord in chords" :key="chord.x" aria-hidden="true" class="chord" :x="chord.x" y="14">
        {{ signs(chord.text) }}
      </text>
    </g>
    <g
      v-for="(event, index) in line.events"
      :key="index"
      class="note"
      :class="[
        event.role,
        event.class,
        {
          lit: first + index === sounding,
          chosen: first + index === chosen,
          marked: marked.includes(first + index),
        },
      ]"
      :transform="`translate(${layout.x[index]} 0)`"
      role="button"
      :tabindex="first + index === stop ? 0 : -1"
      :aria-label="signs(event.spoken)"
      :data-event="first + index"
      @click="emit('pick', first + index)"
      @focus="emit('focus', first + index)"
      @keydown.enter="emit('pick', first + index)"
    >
      <rect class="hit" x="-20" :y="top - 10" width="40" :height="height - top + 6" rx="8" />
      <rect class="paper" x="-11" :y="y(event.string) - 9" width="22" height="18" rx="6" />
      <text aria-hidden="true" class="fret" :y="y(event.string) + 5.5">{{ fretText(event) }}</text>
      <text v-if="techniqueSign(event)" aria-hidden="true" class="technique" x="0" :y="y(event.string) - 10">
        {{ techniqueSign(event) }}
      </text>
      <text aria-hidden="true" class="degree" :y="bottom + 27">{{
        signs(degreeUnder(line.events, index))
      }}</text>
      <text v-if="!dense" aria-hidden="true" class="class" :y="bottom + 42">{{
        classUnder(line.events, index)
      }}</text>
    </g>
  </g>
</template>

<style scoped src="./tab.css"></style>
<style scoped>
.open,
.beat {
  font-size: 12px;
  fill: var(--stone);
  text-anchor: middle;
}
.chord {
  text-anchor: middle;
}
.hit {
  fill: transparent;
}
.note:hover .hit {
  fill: var(--shade);
  opacity: 0.6;
}
.chosen .hit {
  fill: var(--now-tint);
}
.marked .hit {
  fill: var(--next-tint);
}
.marked .paper {
  fill: var(--next-tint);
}
.note:focus-visible .hit {
  stroke: var(--now);
  stroke-width: 2;
}
.chosen .paper {
  fill: var(--now-tint);
}
.fret {
  font-size: 16px;
}
.degree {
  font-size: 15px;
}
.class {
  font-size: 12px;
}
.approach .fret,
.approach .degree {
  font-weight: 500;
  fill: var(--next);
}
.target .paper {
  fill: var(--next-fill);
}
.target .fret {
  fill: var(--on-fill);
}
.target .degree,
.target .class {
  fill: var(--next);
}
.target .class {
  font-weight: 700;
}
</style>
