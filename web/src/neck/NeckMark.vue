<script setup lang="ts">
import { computed } from 'vue'
import { signs } from '../controls/spelling'
import { markSize } from './arrows'
import type { Mark } from './marks'

/** One note on the neck: a pebble, a dot of the box, a ghost, or a place that can be written. */
const props = defineProps<{
  mark: Mark
  room: number
  /** How far apart the strings are: what can be pressed reaches half of it to each side. */
  tall: number
}>()
const hit = computed(() => Math.max(24, Math.min(48, props.room)))
const size = computed(() => markSize(props.mark, props.room))
</script>

<template>
  <g
    class="mark"
    :class="[mark.form, mark.class, { root: mark.root, lit: mark.lit, chosen: mark.chosen }]"
    role="button"
    :aria-label="signs(mark.spoken)"
  >
    <title>{{ signs(mark.spoken) }}</title>
    <rect class="hit" :x="-hit / 2" :y="-tall / 2" :width="hit" :height="tall" />
    <template v-if="mark.form === 'empty'">
      <circle class="spot" r="6" />
    </template>
    <template v-else-if="mark.form === 'box'">
      <circle class="dot" r="7.5" />
      <path v-if="mark.class === 'blue'" class="half" d="M0 -7.5 A7.5 7.5 0 0 0 0 7.5 z" />
      <text aria-hidden="true" class="tiny" x="11" y="-5">{{ signs(mark.text) }}</text>
    </template>
    <template v-else>
      <rect
        v-if="mark.root || mark.chosen"
        class="outline"
        :x="-size.w / 2 - 3.5"
        :y="-size.h / 2 - 3.5"
        :width="size.w + 7"
        :height="size.h + 7"
        :rx="size.h / 2 + 3.5"
      />
      <rect
        class="pebble"
        :x="-size.w / 2"
        :y="-size.h / 2"
        :width="size.w"
        :height="size.h"
        :rx="size.h / 2"
      />
      <template v-if="mark.second">
        <path class="arrived" :d="`M0 -13 H${size.w / 2 - 13} A13 13 0 0 1 ${size.w / 2 - 13} 13 H0 z`" />
        <text aria-hidden="true" class="degree" :x="-size.w / 4" y="5.5">{{ signs(mark.text) }}</text>
        <text aria-hidden="true" class="degree onto" :x="size.w / 4 - 1" y="5.5">{{
          signs(mark.second)
        }}</text>
      </template>
      <template v-else>
        <text aria-hidden="true" class="degree" :x="mark.small ? -2 - 2 * mark.small.length : 0" y="5.5">
          {{ signs(mark.text) }}
        </text>
        <text
          v-if="mark.small"
          aria-hidden="true"
          class="small"
          :x="size.w / 2 - 6 - 3 * mark.small.length"
          y="9"
        >
          {{ mark.small }}
        </text>
      </template>
      <circle v-if="mark.inBox" class="boxed" :cx="-size.w / 2 + 1" :cy="-size.h / 2 + 3" r="4.5" />
      <text v-if="mark.caption" aria-hidden="true" class="caption" :x="0" y="-17">{{ mark.caption }}</text>
    </template>
  </g>
</template>

<style scoped>
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
.boxed {
  fill: var(--ink);
  stroke: var(--card);
  stroke-width: 1.5;
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
  font-size: 12px;
  fill: var(--stone);
}
.caption {
  text-anchor: middle;
  font-size: 12px;
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
.tone.suspension .pebble {
  stroke: var(--stone);
}
.tone.outside .degree,
.tone.suspension .degree {
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
  font-size: 12px;
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
</style>
