<script setup lang="ts">
import { computed, ref } from 'vue'
import type { BarLine, Block, ChorusView } from '../../api/client'
import { barAt } from '../../tab/barlines'
import { degreeUnder, fretText, techniqueSign } from '../../tab/tab'
import { useMedia } from '../../controls/media'
import { useWidth } from '../../controls/measure'
import { usePinch } from '../../controls/pinch'
import { signs } from '../../controls/spelling'
import BlendRow from './BlendRow.vue'
import { useDragging } from './dragging'
import { onLine, rulerAt } from './ruler'

/** Some bars of a chorus: targets, blocks, the blend and the tab, one under the other. */
const props = defineProps<{
  view: ChorusView
  bar: number
  /** The bars of a chorus. */
  played: BarLine[]
  chords: { tick: number; chord: string }[]
  strings: string[]
  blend: number[]
  step: number
  selected: number | undefined
  chosen: number | undefined
  marked: number[]
  sounding: number | undefined
}>()
const emit = defineEmits<{
  select: [block: number]
  pick: [event: number]
  move: [block: number, ticks: number]
  stretch: [block: number, ticks: number]
  /** The blend of every bar, once it has been drawn. */
  blend: [values: number[]]
}>()

const svg = ref<SVGSVGElement>()
const { width } = useWidth(svg, 1112)
/** Two fingers spread it to fewer bars, or close it to more. */
const { spread, start, follow } = usePinch({ least: 0.5, most: 4 })
const ruler = computed(() => rulerAt(props.view, props.bar, props.played, width.value, spread.value))
const touched = useMedia('(pointer: coarse)')
const handleWidth = computed(() => (touched.value ? 24 : 7))
const rows = { head: 15, target: 39, block: 56, blend: 101, tab: 149 }
const blockHeight = 38
const blendHeight = 32
const gap = 14.6
const y = (string: number) => rows.tab + (string - 1) * gap
const bottom = computed(() => y(props.strings.length))
const height = computed(() => bottom.value + 38)

const targets = computed(() => {
  const { from, to, x } = ruler.value
  return props.view.targets
    .filter((t) => t.tick >= from && t.tick < to)
    .map((t) => ({ ...t, x: x(t.tick) + 16 }))
})
const thread = computed(() => targets.value.map((t) => `${t.x},${rows.target}`).join(' '))
const heads = computed(() => {
  const { from, to, x } = ruler.value
  return props.chords.filter((c) => c.tick >= from && c.tick < to).map((c) => ({ ...c, x: x(c.tick) }))
})

const dragging = useDragging(() => props.view, ruler, svg, {
  select: (block) => emit('select', block),
  move: (block, ticks) => emit('move', block, ticks),
  stretch: (block, ticks) => emit('stretch', block, ticks),
})
const { grab, pull, drop } = dragging
const blocks = computed(() =>
  props.view.blocks.flatMap((block, index) => {
    const { shift, longer } = dragging.dragged(block, index)
    const at = onLine(ruler.value, block, shift, longer)
    return at ? [{ ...at, block, index }] : []
  }),
)
/** A lick's name is the player's own; the others say what a block does. */
const nameOf = (block: Block) => (block.kind === 'lick' ? block.name : signs(block.name))
function says(block: Block, index: number) {
  const parts = [block.kind === 'rest' ? 'rest' : `${nameOf(block)}, ${block.kind}`]
  if (block.locked) parts.push('locked')
  if (block.muted) parts.push('muted')
  const bar = props.played[barAt(props.played, block.start)]
  const beat = bar ? Math.floor((block.start - bar.tick) / bar.beatTicks) + 1 : 1
  return `Block ${index + 1}: ${parts.join(', ')}, from ${block.start < 0 ? 'the pickup' : `bar ${bar?.number} beat ${beat}`}`
}
/** What a block is, in few words, as far as there is room. */
const under = (block: Block) =>
  [block.kind, block.locked ? 'locked' : '', block.muted ? 'muted' : ''].filter(Boolean).join(' · ')
const fitting = (text: string, width: number, letter: number) => {
  const room = Math.floor((width - 14) / letter)
  return text.length <= room ? text : room > 3 ? `${text.slice(0, room - 1)}…` : ''
}

function blockKey(event: KeyboardEvent, index: number) {
  const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
  if (event.key === 'Enter' || event.key === ' ') {
    if (event.key === ' ') return
    emit('select', index)
  } else if (by && event.shiftKey) emit('stretch', index, by * props.step)
  else if (by && event.ctrlKey) return
  else if (by) emit('move', index, by * props.step)
  else return
  event.preventDefault()
  event.stopPropagation()
}

const notes = computed(() => {
  const { from, to, x } = ruler.value
  return props.view.tab.events
    .map((event, index) => ({ event, index, x: x(event.tick) + 11 }))
    .filter(({ event }) => event.tick >= from && event.tick < to)
})
</script>

<template>
  <svg
    ref="svg"
    class="line"
    :viewBox="`0 0 ${width} ${height}`"
    role="group"
    aria-label="The time line"
    @touchstart="start"
    @touchmove="follow"
    @touchend="start"
  >
    <g aria-hidden="true">
      <g v-if="ruler.named" class="names">
        <text aria-hidden="true" x="0" :y="rows.target + 4">Targets</text>
        <text aria-hidden="true" x="0" :y="rows.block + 23">Blocks</text>
        <text aria-hidden="true" x="0" :y="rows.blend + 12">Blend</text>
        <text aria-hidden="true" class="tiny" x="0" :y="rows.blend + 27">box ↓ chords ↑</text>
        <text aria-hidden="true" x="0" :y="(rows.tab + bottom) / 2 + 4">Tab</text>
      </g>
      <line
        v-for="beat in ruler.beats"
        :key="beat.tick"
        class="beat"
        :class="{ bar: beat.bar }"
        :x1="ruler.x(beat.tick)"
        :x2="ruler.x(beat.tick)"
        :y1="beat.bar ? 2 : rows.head + 12"
        :y2="bottom"
      />
      <text
        v-for="b in ruler.bars"
        :key="b.number"
        aria-hidden="true"
        class="number"
        :x="ruler.x(b.tick) + 6"
        :y="rows.head"
      >
        {{ b.number }}
      </text>
      <text v-for="c in heads" :key="c.tick" aria-hidden="true" class="chord" :x="c.x + 26" :y="rows.head">
        {{ signs(c.chord) }}
      </text>
      <polyline class="thread" :points="thread" />
      <line
        v-for="n in strings.length"
        :key="n"
        class="string"
        :x1="ruler.x(ruler.from)"
        :x2="ruler.x(ruler.to)"
        :y1="y(n)"
        :y2="y(n)"
      />
    </g>
    <g v-roving="'.aim'" role="group" aria-label="Targets">
      <g
        v-for="t in targets"
        :key="t.tick"
        class="aim"
        :class="{ missed: t.event < 0 || !t.onAim }"
        role="button"
        :aria-label="
          signs(
            t.event < 0
              ? `${t.chord}: aim at ${t.aim.note}, the ${t.aim.degree}; nothing lands`
              : `${t.chord}: aim at ${t.aim.note}, the ${t.aim.degree}; landed on ${t.tone?.note}, the ${t.tone?.degree}, ${t.timing}`,
          )
        "
        @click="t.event >= 0 && emit('pick', t.event)"
        @keydown.enter="t.event >= 0 && emit('pick', t.event)"
      >
        <rect :x="t.x - 15" :y="rows.target - 10" width="30" height="20" rx="10" />
        <text aria-hidden="true" class="degree" :x="t.x" :y="rows.target + 5">{{ signs(t.aim.degree) }}</text>
        <text aria-hidden="true" class="note" :x="t.x + 20" :y="rows.target + 4">
          {{ signs(t.aim.note) }}
        </text>
      </g>
    </g>
    <g v-roving.vertical="'.block'" role="group" aria-label="Blocks">
      <g
        v-for="b in blocks"
        :key="b.index"
        class="block"
        :class="[
          b.block.kind.replace(' ', '-'),
          { selected: b.index === selected, muted: b.block.muted, locked: b.block.locked },
        ]"
        role="button"
        :data-block="b.index"
        :aria-pressed="b.index === selected"
        :aria-label="says(b.block, b.index)"
        @pointerdown="grab($event, b.index, false)"
        @pointermove="pull"
        @pointerup="drop"
        @pointercancel="dragging.cancel"
        @focus="emit('select', b.index)"
        @keydown="blockKey($event, b.index)"
      >
        <title>{{ nameOf(b.block) }}</title>
        <rect
          class="body"
          :x="b.x + 1"
          :y="rows.block"
          :width="Math.max(b.width - 2, 1)"
          :height="blockHeight"
          rx="7"
        />
        <rect
          v-if="b.block.kind !== 'rest'"
          class="edge"
          :x="b.x + 1"
          :y="rows.block"
          width="4"
          :height="blockHeight"
          rx="2"
        />
        <text
          aria-hidden="true"
          class="title"
          :x="b.x + 10"
          :y="rows.block + (b.block.kind === 'rest' ? 24 : 16)"
        >
          {{ fitting(nameOf(b.block), b.width, 6.6) }}
        </text>
        <text
          v-if="b.block.kind !== 'rest'"
          aria-hidden="true"
          class="under"
          :x="b.x + 10"
          :y="rows.block + 31"
        >
          {{ fitting(under(b.block), b.width, 6.2) }}
        </text>
        <rect
          v-if="b.block.kind !== 'rest' && !b.block.locked"
          class="handle"
          :x="b.x + b.width - Math.min(handleWidth, b.width / 3)"
          :y="rows.block"
          :width="Math.min(handleWidth, b.width / 3)"
          :height="blockHeight"
          @pointerdown.stop="grab($event, b.index, true)"
        />
      </g>
    </g>
    <BlendRow
      :ruler="ruler"
      :blend="blend"
      :top="rows.blend"
      :height="blendHeight"
      @blend="(values) => emit('blend', values)"
    />
    <g v-roving="'.event'" role="group" aria-label="Notes">
      <g
        v-for="n in notes"
        :key="n.index"
        class="event"
        :class="[
          n.event.role,
          {
            lit: n.index === sounding,
            chosen: n.index === chosen,
            marked: marked.includes(n.index),
            led: n.event.role === 'approach',
          },
        ]"
        role="button"
        :data-event="n.index"
        :aria-label="signs(`${n.event.spoken}. ${n.event.why}`)"
        :transform="`translate(${n.x} 0)`"
        @click="emit('pick', n.index)"
        @keydown.enter="emit('pick', n.index)"
      >
        <rect class="hit" x="-11" :y="rows.tab - 9" width="22" :height="height - rows.tab + 7" rx="6" />
        <rect class="paper" x="-8.5" :y="y(n.event.string) - 7.5" width="17" height="15" rx="5" />
        <text aria-hidden="true" class="fret" :y="y(n.event.string) + 4.5">{{ fretText(n.event) }}</text>
        <text
          v-if="techniqueSign(n.event)"
          aria-hidden="true"
          class="sign"
          x="0"
          :y="y(n.event.string) - 8.5"
        >
          {{ techniqueSign(n.event) }}
        </text>
        <text aria-hidden="true" class="degree" :y="bottom + 20">
          {{ signs(degreeUnder(view.tab.events, n.index)) }}
        </text>
        <text v-if="n.event.role === 'target'" aria-hidden="true" class="landing" :y="bottom + 33">
          lands
        </text>
      </g>
    </g>
  </svg>
</template>

<style scoped src="./timeline.css"></style>
