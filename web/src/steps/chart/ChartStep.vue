<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'
import type { WrittenBar } from '../../api/client'
import { usePlayer, useSource } from '../../sound/player'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import BarCell from './BarCell.vue'
import BarPanel from './BarPanel.vue'
import ChartBench from './ChartBench.vue'
import { useSelection } from './selection'
import { useRearranging } from './rearranging'
import { rowsOf, vertically } from './sheet'
import { useWriting } from './writing'

const tune = useTune()
const view = useView()
const player = usePlayer()
const selection = useSelection()
const writing = useWriting()

const bars = computed<WrittenBar[]>(() => tune.read?.bars ?? [])
const rows = computed(() => rowsOf(bars.value))
/** The bars whose text could not be read, numbered from 1. */
const unread = computed(() => bars.value.flatMap((bar, n) => (bar.unread ? [n + 1] : [])))
/** As many rows as fit are drawn at their full height; more are drawn lower. */
const barHeight = computed(() => {
  const count = rows.value.length
  return `${Math.max(58, Math.min(116, Math.floor((600 - 20 * rows.value.filter((r) => r.section).length) / Math.max(count, 1)) - 14))}px`
})
/** The written bar that is being heard. */
const playing = computed(() => {
  const moment = tune.read?.chordSpans.find((m) => m.bar === player.bar)
  return moment ? moment.source - 1 : undefined
})

const sheet = ref<HTMLElement>()
async function focusHead() {
  await nextTick()
  sheet.value?.querySelector<HTMLElement>('.bar[tabindex="0"]')?.focus({ preventScroll: false })
}
onMounted(() => {
  if (document.activeElement === document.body) void focusHead()
})

function go(bar: number, extending = false) {
  chosen.value = true
  selection.select(bar, extending)
  void focusHead()
}

function commit(by: number) {
  const at = writing.bar.value
  if (at === undefined) return
  writing.commit()
  if (by !== 0) go(at + by)
}

function cancel() {
  writing.cancel()
  void focusHead()
}

/** A chord from the pad; what takes the bar’s place goes on to the next bar. */
function put(text: string, beside: boolean) {
  const at = selection.head.value
  void writing.put(at, text, beside)
  if (!beside) selection.select(at + 1, false)
}

async function mend(bar: number, text: string) {
  await writing.write(bar, text)
  go(bar + 1)
}

const { copied, copy, paste, remove, clear, insert } = useRearranging(selection)

/**
 * The characters that a chord, a numeral or another sign of a bar begins with. While a bar is chosen, letters of either
 * case and figures are its own; before one is, and after Escape, figures and small letters are the keys they are elsewhere.
 */
const begins = /^[A-GNIVivb#♭♯%.]$/
const beginsInChosen = /^[A-HNIVa-hivn0-9#♭♯%.]$/
const chosen = ref(false)
function leave() {
  chosen.value = false
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}

function keys(event: KeyboardEvent) {
  if (writing.bar.value !== undefined || event.altKey) return
  const at = selection.head.value
  const mod = event.ctrlKey || event.metaKey
  const key = event.key
  const does: Record<string, () => void> = {
    ArrowLeft: () => go(at - 1, event.shiftKey),
    ArrowRight: () => go(at + 1, event.shiftKey),
    ArrowUp: () => go(vertically(rows.value, at, -1), event.shiftKey),
    ArrowDown: () => go(vertically(rows.value, at, 1), event.shiftKey),
    Home: () => go(0, event.shiftKey),
    End: () => go(bars.value.length - 1, event.shiftKey),
    Escape: leave,
    Enter: () => writing.begin(at),
    F2: () => writing.begin(at),
    Backspace: clear,
    Delete: remove,
    Insert: insert,
    'mod+c': copy,
    'mod+v': () => void paste(),
    'mod+a': () => {
      selection.select(0)
      go(bars.value.length - 1, true)
    },
  }
  const action = does[(mod ? 'mod+' : '') + (mod ? key.toLowerCase() : key)]
  if (action) {
    event.preventDefault()
    action()
  } else if (!mod && (chosen.value ? beginsInChosen : begins).test(key)) {
    // The field has the keyboard by the time the character is put in.
    event.stopPropagation()
    chosen.value = true
    writing.begin(at, '')
  }
}

useSource('chart', () => ({ tuneFrom: view.moment.value?.bar ?? 1 }))
</script>

<template>
  <section v-if="tune.read && tune.chart" class="step">
    <div ref="sheet" class="sheet" :style="{ '--bar-height': barHeight }" @keydown="keys">
      <h2 class="print-title">{{ tune.chart.title }}</h2>
      <p class="print-facts">
        {{ signs(tune.chart.key.tonic) }} {{ tune.chart.key.mode }} · {{ tune.chart.meter }} ·
        {{ tune.chart.feel }} · {{ tune.chart.tempo }}
        <template v-if="tune.read.pickupText"> · pickup {{ signs(tune.read.pickupText) }}</template>
        <template v-if="tune.read.fretted">
          · capo {{ tune.chart.capo }}, played in {{ signs(tune.read.fretted) }}
        </template>
      </p>
      <div v-for="(row, n) in rows" :key="n" class="row" :class="{ labelled: row.section }">
        <span v-if="row.section" class="label">{{ row.section }}</span>
        <span class="number">{{ (row.bars[0]?.index ?? 0) + 1 }}</span>
        <BarCell
          v-for="{ bar, index } in row.bars"
          :key="index"
          :class="{ 'screen-only': !bar }"
          :bar="bar"
          :number="index + 1"
          :selected="index >= selection.first.value && index <= selection.last.value"
          :focusable="index === selection.head.value"
          :playing="playing === index"
          :imagining="Boolean(tune.chart.imagining)"
          :draft="writing.bar.value === index ? writing.draft.value : undefined"
          :pending="writing.pending.get(index)"
          :refusal="writing.refusals.get(index)"
          @pick="(extending) => go(index, extending)"
          @begin="writing.begin(index)"
          @draft="(text) => (writing.draft.value = text)"
          @commit="commit"
          @cancel="cancel"
          @mend="(text) => mend(index, text)"
        />
      </div>
    </div>
    <ChartBench :selection="selection">
      <BarPanel
        :selection="selection"
        :copied="copied?.count"
        @copy="copy"
        @paste="paste"
        @remove="remove"
        @insert="insert"
        @write="writing.begin(selection.head.value)"
        @put="put"
      />
    </ChartBench>
    <p v-if="unread.length" class="hint screen-only" role="status">
      Not read: {{ unread.map((n) => `bar ${n}`).join(', ') }}. Type what stands there and the rest goes on as
      it is.
    </p>
    <p v-else class="hint quiet screen-only">
      Type a chord (<kbd>F7</kbd>, <kbd>Dm7 G7</kbd>, <kbd>C7 . . G7</kbd>) or a numeral (<kbd>IV7</kbd>);
      <kbd>Enter</kbd> moves on. <kbd>%</kbd> is the bar before, <kbd>N.C.</kbd> silence, <kbd>|</kbd> the
      next bar. Shift and arrows select; Delete takes bars out.
    </p>
  </section>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 26.4rem;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 0 22px;
  height: calc(100vh - 96px);
  min-height: 420px;
}
.sheet {
  overflow-y: auto;
  padding: 6px 4px 40px 0;
}
.row {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  position: relative;
  margin: 0 0 14px 28px;
}
.labelled {
  padding-top: 20px;
}
.label {
  position: absolute;
  top: 0;
  left: 0;
  font-weight: 750;
  line-height: 1.1;
  white-space: nowrap;
}
.number {
  position: absolute;
  left: -30px;
  bottom: 4px;
  width: 24px;
  text-align: right;
  font-size: 0.8rem;
  color: var(--stone);
}
.hint {
  grid-column: 1 / -1;
  padding-top: 8px;
  font-size: 0.88rem;
}
kbd {
  font: inherit;
  font-weight: 650;
  color: var(--ink);
}
/* Where there is less room the panel goes below the sheet. */
@container main (max-width: 62rem) {
  .step {
    display: flex;
    flex-direction: column;
    height: auto;
    min-height: 0;
  }
  .sheet {
    overflow-y: visible;
    padding-bottom: 1rem;
  }
}
@container main (max-width: 19rem) {
  .row {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    row-gap: 8px;
  }
}
.print-title,
.print-facts {
  display: none;
}
@media print {
  .step {
    display: block;
    height: auto;
  }
  .sheet {
    overflow: visible;
  }
  .print-title,
  .print-facts {
    display: block;
    margin-bottom: 8px;
  }
  .print-title {
    font-size: 1.8rem;
  }
  .row {
    break-inside: avoid;
  }
  .screen-only {
    display: none;
  }
}
</style>
