<script setup lang="ts">
import { barsInRow } from '../controls/rows'
import { computed, onMounted, ref, watch } from 'vue'
import type { Change, ChordSpan } from '../api/client'
import { signs } from '../controls/spelling'
import { ordered, useBarDrawing } from './drawing'

const props = defineProps<{
  moments: ChordSpan[]
  now: ChordSpan | undefined
  change: Change | undefined
  playing: number | undefined
  /** What is landed on where a chord arrives, by the tick of its moment. */
  landings?: Map<number, { text: string; pinned: boolean }>
  /** What a listener makes of each chord when the band drops out, by the tick of its moment. */
  heard?: Map<number, { recognition: string; text: string }>
  /** Only where in the form one is, without the names of the chords. */
  nameless?: boolean
  /** What is another than before in each bar: the key, the meter or the feel. */
  changes?: string[]
  /** Little room: one row stands, and the next can be seen to come. */
  low?: boolean
  /** The bars that are looped. */
  looped?: { from: number; to: number }
}>()
const emit = defineEmits<{ pick: [moment: ChordSpan]; loop: [from: number, to: number] }>()

// Few bars, or bars with several chords, stand eight in a row; plain ones twelve.
const inARow = computed(() => {
  const count = bars.value.length
  const crowded = bars.value.some((spans) => spans.length > 1)
  return count <= 8 || count === 16 || (crowded && count > 12 && count % 8 === 0) ? 8 : 12
})
const strip = ref<HTMLElement>()
/** Keeps the bar that is worked on or heard within the strip; the page itself stays where it is. */
function keepInSight() {
  const all = strip.value
  const bar = all?.querySelector<HTMLElement>('.bar.playing, .bar:has(.now)')
  if (!all || !bar) return
  const above = bar.offsetTop - all.offsetTop
  if (above < all.scrollTop || above + bar.offsetHeight > all.scrollTop + all.clientHeight)
    all.scrollTop = above - 8
}
watch(() => [props.now?.tick, props.playing, props.low] as const, keepInSight, { flush: 'post' })
onMounted(keepInSight)

const bars = computed(() => {
  const bars: ChordSpan[][] = []
  for (const moment of props.moments) (bars[moment.bar - 1] ??= []).push(moment)
  return bars
})
const isNow = (m: ChordSpan) =>
  props.change ? props.change.leaving.tick === m.tick : props.now?.tick === m.tick
const isNext = (m: ChordSpan) => props.change?.arriving.tick === m.tick

const { drawn, dragged, press, drag, release, forget } = useBarDrawing(strip, (from, to) =>
  emit('loop', from, to),
)
const loopedBars = computed(() => (dragged.value ? ordered(drawn.value) : props.looped))
const isLooped = (bar: number) =>
  loopedBars.value !== undefined && bar >= loopedBars.value.from && bar <= loopedBars.value.to
/** What ends a drag is no click on a bar. */
const pick = (m: ChordSpan) => {
  if (!dragged.value) emit('pick', m)
}

function says(m: ChordSpan) {
  if (props.nameless) return `Bar ${m.bar}`
  const role = isNow(m) && props.change ? ', leaving' : isNext(m) ? ', arriving' : ''
  const chord = m.silent ? `no chord, ${signs(m.chord)} still in the ear` : signs(m.chord)
  const over = m.written ? `, imagined over ${signs(m.written)}` : ''
  const dropped = props.heard?.get(m.tick)
  const alone = dropped ? `; without the band ${signs(dropped.text)}` : ''
  return `Bar ${m.bar}, ${chord}${over}, ${signs(m.roman)}${role}${alone}`
}
</script>

<template>
  <ol
    ref="strip"
    v-roving="'button'"
    class="strip"
    :class="{ eight: inARow === 8, low, threaded: landings, alone: heard }"
    aria-label="The form"
    @pointerdown="press"
    @pointermove="drag"
    @pointerup="release"
    @pointercancel="forget"
  >
    <li
      v-for="(spans, index) in bars"
      :key="index"
      class="bar"
      :data-bar="index + 1"
      :class="{
        split: spans.length > 1,
        playing: playing === index + 1,
        looped: isLooped(index + 1),
        fourth: index % barsInRow === barsInRow - 1 && (index + 1) % inARow !== 0,
      }"
    >
      <button
        v-for="m in spans"
        :key="m.tick"
        type="button"
        :style="{ flex: m.beats }"
        :class="{ now: isNow(m), next: isNext(m), imagined: m.written, silent: m.silent }"
        :aria-label="says(m)"
        :title="nameless ? undefined : signs(m.chord)"
        :aria-current="isNow(m) ? 'true' : undefined"
        @click="pick(m)"
      >
        <span v-if="nameless" class="chord quiet" aria-hidden="true">{{ index + 1 }}</span>
        <span v-else class="chord" aria-hidden="true">{{ m.silent ? 'N.C.' : signs(m.chord) }}</span>
        <span v-if="!nameless" class="roman" aria-hidden="true">{{ m.silent ? '' : signs(m.roman) }}</span>
        <span
          v-if="landings?.get(m.tick)"
          class="landing"
          aria-hidden="true"
          :class="{ pinned: landings.get(m.tick)?.pinned }"
          >{{ signs(landings.get(m.tick)?.text ?? '') }}</span
        >
        <span v-else-if="m.written" class="written" aria-hidden="true">over {{ signs(m.written) }}</span>
        <span
          v-if="heard?.get(m.tick)"
          class="dropped"
          :class="heard.get(m.tick)?.recognition.replace(' ', '-')"
        ></span>
      </button>
      <span
        v-if="index % barsInRow === 0 || spans[0]?.section || changes?.[index]"
        class="number"
        aria-hidden="true"
        >{{ index + 1 }} <b v-if="spans[0]?.section">{{ spans[0].section }}</b>
        {{ signs(changes?.[index] ?? '') }}</span
      >
    </li>
  </ol>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(12, minmax(0, 1fr));
  gap: 1.2rem 4px;
  margin-bottom: 2px;
  padding-bottom: 1.2rem;
  /* Two rows stand; a longer form scrolls to the bar under work. */
  max-height: calc(8.8rem + 6px);
  padding-top: 6px;
  margin-top: -6px;
  overflow-y: auto;
  scrollbar-width: thin;
  touch-action: pan-y;
  user-select: none;
}
.strip.low {
  max-height: 6.5rem;
}
.strip.eight {
  grid-template-columns: repeat(8, minmax(0, 1fr));
}
.bar {
  position: relative;
  display: flex;
  height: 3.2rem;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--card);
}
.bar.fourth {
  margin-right: 10px;
}
button {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 4px;
  min-width: 0;
  border: 2px solid transparent;
  border-radius: 7px;
  background: none;
  padding: 11px 8px 0;
  cursor: pointer;
}
button:hover {
  border-color: var(--line);
}
.chord {
  font-size: 1.25rem;
  font-weight: 750;
}
.roman {
  font-size: 0.8rem;
  color: var(--stone);
}
/* Two chords and more share a bar: smaller, the numeral below. */
.split button {
  flex-direction: column;
  justify-content: flex-start;
  gap: 0;
  padding: 5px 2px 0 4px;
}
.split .chord {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 0.8rem;
  letter-spacing: -0.03em;
}
.eight .split .chord {
  font-size: 1.02rem;
}
.imagined .chord {
  font-style: italic;
  color: var(--next);
}
.written {
  position: absolute;
  left: 8px;
  bottom: 1px;
  font-size: 0.8rem;
  color: var(--stone);
}
/* The thread of landings runs along the foot of the bars. */
.landing {
  position: absolute;
  bottom: 0;
  left: 8px;
  font-size: 0.8rem;
  font-weight: 700;
  color: var(--next);
}
.threaded button {
  padding-top: 4px;
}
.landing.pinned {
  text-decoration: underline;
  text-decoration-thickness: 2px;
}
/* Whether the chord is heard without the band: a whole line, a broken one, or none. */
.dropped {
  position: absolute;
  left: 2px;
  right: 2px;
  bottom: -6px;
  height: 4px;
  border-radius: 2px;
  background: var(--now);
}
.dropped.unclear,
.dropped.another-chord {
  background: repeating-linear-gradient(90deg, var(--next-fill) 0 5px, transparent 5px 9px);
}
.dropped.nothing {
  background: none;
  border: 1px dashed var(--stone);
}
/* The numbers of the bars make way for it. */
.strip.alone {
  row-gap: 1.4rem;
  padding-bottom: 1.3rem;
  max-height: calc(9.1rem + 6px);
}
.alone .number {
  top: 3.55rem;
}
/* Where bars are split there is room for one line: the landing, not the numeral. */
.split .landing {
  position: static;
}
.threaded .split button:has(.landing) .roman {
  display: none;
}
.split .written {
  display: none;
}
.silent .chord {
  font-size: 0.9rem;
  font-weight: 500;
  color: var(--stone);
}
.now {
  background: var(--now-tint);
  border-color: var(--now);
}
.next {
  background: var(--next-tint);
  border-color: var(--next-fill);
}
.bar.playing {
  box-shadow: 0 0 0 3px var(--lit);
}
/* Looped bars are loopedBars over. */
.bar.looped::before {
  content: '';
  position: absolute;
  top: -5px;
  left: -3px;
  right: -3px;
  height: 4px;
  border-radius: 2px;
  background: var(--now);
}
.number {
  position: absolute;
  top: 3.25rem;
  left: 1px;
  font-size: 0.8rem;
  line-height: 1.1;
  color: var(--stone);
  white-space: nowrap;
}
.number b {
  color: var(--ink);
  margin-left: 2px;
}
/* Narrower pages have fewer bars in a row. */
@container main (max-width: 62rem) {
  .strip {
    grid-template-columns: repeat(8, minmax(0, 1fr));
  }
  .bar.fourth {
    margin-right: 0;
  }
  .strip.low {
    max-height: calc(8.8rem + 6px);
  }
}
@container main (max-width: 40rem) {
  .strip,
  .strip.eight {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
  .split button {
    padding: 5px 1px 0 3px;
  }
}
@container main (max-width: 40rem) {
  .strip.low {
    max-height: calc(4.4rem + 6px);
  }
}
@container main (max-width: 24rem) {
  .roman {
    display: none;
  }
}
@container main (max-width: 14rem) {
  .strip,
  .strip.eight {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
/* Lying, or with large text, one row is left to stand. */
@media (max-height: 43rem) {
  .strip {
    max-height: calc(4.4rem + 6px);
  }
  .strip.alone {
    max-height: calc(4.7rem + 6px);
  }
}
</style>
