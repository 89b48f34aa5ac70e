<script setup lang="ts">
import { computed, ref } from 'vue'
import { wasClicked } from '../controls/keys'
import { useWidth } from '../controls/measure'
import { brokenLines } from './lines'
import { rowMeasures } from './measures'
import { type TabLine } from './tab'
import TabRow from './TabRow.vue'

/** A line as tab, broken into as many lines as the width there is asks for. */
const props = withDefaults(
  defineProps<{
    line: TabLine
    label?: string
    strings: string[]
    sounding: number | undefined
    chosen: number | undefined
    /** The notes that a figure speaks of. */
    marked?: number[]
    /** Lower, without what a note is in words: for many rows below each other. */
    dense?: boolean
  }>(),
  { label: 'The line as tab', marked: () => [], dense: false },
)
const emit = defineEmits<{ pick: [index: number] }>()

const svg = ref<SVGSVGElement>()
const { width } = useWidth(svg, 838)
const lines = computed(() => brokenLines(props.line, width.value))
const rowHeight = computed(() => rowMeasures(props.dense).height(props.strings.length))

// One stop for the Tab key; the arrows move from note to note from there.
const current = ref(0)
const stop = computed(() => Math.min(current.value, props.line.events.length - 1))
function walk(event: KeyboardEvent) {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (
    by === undefined ||
    wasClicked(event.target) ||
    event.shiftKey ||
    event.altKey ||
    event.ctrlKey ||
    event.metaKey
  )
    return
  event.preventDefault()
  event.stopPropagation()
  current.value = Math.max(0, Math.min(current.value + by, props.line.events.length - 1))
  svg.value?.querySelector<SVGElement>(`[data-event="${current.value}"]`)?.focus()
}
</script>

<template>
  <div class="scroller">
    <svg
      ref="svg"
      class="tab"
      :viewBox="`0 0 ${width} ${rowHeight * lines.length}`"
      role="group"
      :aria-label="label"
      @keydown="walk"
    >
      <TabRow
        v-for="(one, n) in lines"
        :key="one.first"
        :transform="`translate(0 ${n * rowHeight})`"
        :first="one.first"
        :line="one.line"
        :width="width"
        :strings="strings"
        :sounding="sounding"
        :chosen="chosen"
        :marked="marked"
        :dense="dense"
        :stop="stop"
        @pick="(index) => emit('pick', index)"
        @focus="(index) => (current = index)"
      />
    </svg>
  </div>
</template>

<style scoped>
.scroller {
  overflow-y: auto;
  scrollbar-width: thin;
}
svg {
  display: block;
  width: 100%;
}
</style>
