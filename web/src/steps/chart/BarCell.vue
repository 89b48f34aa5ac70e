<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { WrittenBar } from '../../api/client'
import { signs } from '../../controls/spelling'
import BarFace from './BarFace.vue'
import SignIcon from './SignIcon.vue'

/** One bar of the sheet: its chords, or the field to type them in. */
const props = defineProps<{
  bar: WrittenBar | undefined
  number: number
  selected: boolean
  focusable: boolean
  playing: boolean
  /** Imagined chords are followed and so drawn full; else they are faint. */
  imagining: boolean
  /** The text in the field while the bar is being written. */
  draft: string | undefined
  /** What is on its way to being the bar's text. */
  pending: string | undefined
  refusal: { text: string; detail: string; nearest: { symbol: string; text: string }[] } | undefined
}>()
const emit = defineEmits<{
  pick: [extending: boolean]
  begin: []
  draft: [text: string]
  commit: [by: number]
  cancel: []
  mend: [text: string]
}>()

const field = ref<HTMLInputElement>()
const cell = ref<HTMLElement>()
watch(
  () => props.draft !== undefined,
  async (writing) => {
    if (!writing) return
    await nextTick()
    field.value?.focus()
    // What is typed next takes the place of what was there.
    field.value?.select()
  },
)
defineExpose({ focus: () => cell.value?.focus() })

function spans(list: { chord: string; roman: string; beats: number }[], none: string) {
  return list
    .map(
      (c) =>
        (c.chord ? `${signs(c.chord)} ${signs(c.roman)}` : none) +
        (list.length > 1 ? ` ${c.beats} ${c.beats > 1 ? 'beats' : 'beat'}` : ''),
    )
    .join(', ')
}

const says = computed(() => {
  const bar = props.bar
  if (!bar) return 'A new bar at the end'
  const parts = [`Bar ${props.number}`]
  if (bar.section) parts.push(`section ${bar.section}`)
  if (bar.repeatFrom) parts.push('a repeat starts')
  if (bar.ending) parts.push(`${['', 'first', 'second', 'third', 'fourth'][bar.ending]} ending`)
  if (bar.changes) parts.push(bar.changes)
  if (bar.segno) parts.push('segno')
  if (bar.coda) parts.push('the coda begins')
  parts.push(bar.unread ? `could not be read: ${bar.unread}` : spans(bar.chords, 'no chord'))
  if (bar.imagined.length) parts.push(`imagined ${spans(bar.imagined, 'as written')}`)
  if (bar.repeatTo) parts.push(`played ${bar.repeatTo} times`)
  if (bar.toCoda) parts.push('to the coda')
  if (bar.fine) parts.push('fine')
  if (bar.jump) parts.push(bar.jump)
  return parts.join(', ')
})

function keys(event: KeyboardEvent) {
  if (event.key === 'Enter' || event.key === 'Tab') {
    event.preventDefault()
    emit('commit', event.key === 'Tab' && event.shiftKey ? -1 : 1)
  } else if (event.key === 'Escape') {
    event.preventDefault()
    emit('cancel')
  }
  event.stopPropagation()
}
</script>

<template>
  <div
    class="cell"
    :class="{
      selected,
      playing,
      refused: refusal,
      from: bar?.repeatFrom,
      to: bar?.repeatTo,
      fresh: !bar,
      unread: bar?.unread,
      marked: bar && (bar.changes || bar.segno || bar.coda),
    }"
  >
    <span v-if="bar?.ending" class="ending">{{ bar.ending }}.</span>
    <input
      v-if="draft !== undefined"
      ref="field"
      :value="draft"
      :aria-label="`Chords of bar ${number}`"
      spellcheck="false"
      autocomplete="off"
      @input="emit('draft', ($event.target as HTMLInputElement).value)"
      @keydown="keys"
      @blur="emit('commit', 0)"
    />
    <div
      v-else
      ref="cell"
      class="bar"
      role="button"
      :tabindex="focusable ? 0 : -1"
      :aria-label="says"
      :aria-pressed="selected"
      @click="emit('pick', $event.shiftKey)"
      @dblclick="emit('begin')"
    >
      <BarFace
        :bar="bar"
        :imagining="imagining"
        :text="pending ?? refusal?.text ?? (bar?.unread || undefined)"
      />
    </div>
    <span v-if="bar && bar.repeatTo > 2" class="times">×{{ bar.repeatTo }}</span>
    <span v-if="bar && (bar.changes || bar.segno || bar.coda)" class="marks" aria-hidden="true"
      ><SignIcon v-if="bar.segno" sign="segno" /><SignIcon v-if="bar.coda" sign="coda" />{{
        signs(bar.changes)
      }}</span
    >
    <span v-if="bar && (bar.jump || bar.fine || bar.toCoda)" class="leads" aria-hidden="true">{{
      bar.jump || (bar.fine ? 'Fine' : 'To coda')
    }}</span>
    <div v-if="refusal" class="refusal" role="alert">
      {{ refusal.detail }}
      <button
        v-for="near in refusal.nearest"
        :key="near.symbol"
        type="button"
        class="chip"
        @click="emit('mend', near.text)"
      >
        {{ signs(near.symbol) }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.cell {
  position: relative;
  min-width: 0;
  container: bar / inline-size;
  height: var(--bar-height, 76px);
  border-right: 2px solid var(--string);
}
.cell:first-of-type {
  border-left: 2px solid var(--string);
}
.bar {
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
  height: 100%;
  padding: 2px 8px 7px 14px;
  cursor: pointer;
  border-radius: 4px;
}
.bar:hover {
  background: var(--now-tint);
}
.selected .bar {
  background: var(--now-tint);
  box-shadow: inset 0 0 0 2px var(--now);
}
.playing .bar {
  box-shadow: inset 0 0 0 3px var(--lit);
}
.refused .bar {
  box-shadow: inset 0 0 0 2px var(--next-fill);
}
/* Repeat signs: a heavy line, a light one and two dots. */
.from::before,
.to::after {
  content: '';
  position: absolute;
  z-index: 1;
  top: 0;
  bottom: 0;
  width: 9px;
  pointer-events: none;
  background:
    radial-gradient(circle 2.6px at var(--dots) 38%, var(--ink) 96%, transparent),
    radial-gradient(circle 2.6px at var(--dots) 62%, var(--ink) 96%, transparent);
}
.from .bar {
  padding-left: 20px;
}
.from::before {
  --dots: 8px;
  left: 0;
  width: 12px;
  border-left: 4px solid var(--ink);
}
.to::after {
  --dots: 4px;
  right: -1px;
  width: 12px;
  border-right: 4px solid var(--ink);
}
.ending {
  position: absolute;
  z-index: 1;
  top: 0;
  left: 3px;
  right: 6px;
  height: 12px;
  border: 1.5px solid var(--ink);
  border-right: 0;
  border-bottom: 0;
  padding-left: 3px;
  font-size: 0.8rem;
  font-weight: 650;
  line-height: 1.1;
  pointer-events: none;
}
/* What changes with the bar, over its chords; where it leads, at its end. */
.marks {
  position: absolute;
  top: 1px;
  left: 14px;
  right: 4px;
  overflow: hidden;
  font-size: 0.8rem;
  line-height: 1.1;
  font-weight: 650;
  white-space: nowrap;
  text-overflow: ellipsis;
  pointer-events: none;
}
/* The chords make room for it. */
.marked .bar {
  padding-bottom: 1px;
}
.ending ~ .marks {
  top: 14px;
}
.leads {
  position: absolute;
  right: 10px;
  bottom: 4px;
  font-size: 0.82rem;
  font-style: italic;
  font-weight: 650;
  pointer-events: none;
}
/* Narrow bars have room for where it leads or for the numeral. */
@container main (max-width: 58rem) {
  .cell:has(.leads) :deep(.roman) {
    visibility: hidden;
  }
}
.unread .bar {
  background: var(--next-tint);
  box-shadow: inset 0 0 0 2px var(--next-fill);
}
.times {
  position: absolute;
  right: 10px;
  top: 2px;
  font-size: 0.8rem;
  font-weight: 650;
  pointer-events: none;
}
input {
  position: absolute;
  z-index: 2;
  inset: auto 2px 4px 4px;
  width: calc(100% - 6px);
  height: 44px;
  font: inherit;
  font-size: 1.25rem;
  font-weight: 700;
  padding: 0 8px;
  color: var(--ink);
  background: var(--card);
  border: 2px solid var(--now);
  border-radius: 6px;
}
.fresh {
  border-right: 0;
}
.refusal {
  position: absolute;
  z-index: 3;
  top: calc(100% + 2px);
  left: 0;
  width: 20rem;
  padding: 0.5rem 0.7rem;
  border: 1px solid var(--next-fill);
  border-radius: 8px;
  background: var(--next-tint);
  color: var(--ink);
  font-size: 0.9rem;
}
/* In the last column it would run off the sheet. */
.cell:nth-of-type(4) .refusal {
  left: auto;
  right: 0;
}
.refusal .chip {
  margin: 0.3rem 0.3rem 0 0;
  font-weight: 650;
}
</style>
