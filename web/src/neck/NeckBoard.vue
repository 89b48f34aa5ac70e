<script setup lang="ts">
import { computed } from 'vue'
import type { Neck } from '../api/client'
import { signs } from '../controls/spelling'
import type { Geometry, Span } from './geometry'

/** The neck itself: frets, strings and inlays, with the reach and the core of the hand. */
const props = defineProps<{ instrument: Neck; span: Span; g: Geometry }>()

const strings = computed(() => props.instrument.strings.map((name, index) => ({ name, string: index + 1 })))
const frets = computed(() => Array.from({ length: props.g.frets }, (_, index) => index + 1))
const wide = (fret: number) => fret >= props.span.low && fret <= props.span.high
const inCore = (fret: number) => fret >= props.span.core && fret <= props.span.coreEnd
/** Where frets are too narrow for a number each, only those of the inlays have one. */
const numbered = (fret: number) =>
  wide(fret) || Math.abs(props.g.wire(1) - props.g.wire(0)) > 14 || fret === 1
const inlays = [3, 5, 7, 9, 12, 15, 17, 19, 21]

/** The x and width of a stretch between two places, whichever way the neck is turned. */
const stretch = (a: number, b: number) => ({ x: Math.min(a, b), width: Math.abs(b - a) })
</script>

<template>
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
      <text
        v-if="numbered(fret)"
        class="fret"
        :class="{ core: inCore(fret), wide: wide(fret) }"
        :x="g.x(fret)"
        :y="g.height - 4"
      >
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
        :x1="g.at(span.low === 0 || g.tight ? 20 : 56)"
        :x2="g.at(g.width)"
        :y1="g.y(string)"
        :y2="g.y(string)"
        :stroke-width="0.8 + string * 0.28"
      />
      <text class="open" :x="g.at(span.low === 0 || g.tight ? 5 : 40)" :y="g.y(string) + 4">{{
        signs(name)
      }}</text>
    </template>
  </g>
</template>

<style scoped>
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
  font-size: 12px;
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
</style>
