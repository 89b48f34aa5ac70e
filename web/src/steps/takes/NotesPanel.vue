<script setup lang="ts">
import { computed } from 'vue'
import type { TakeVerdict } from '../../api/client'
import { useTune } from '../../document/tune'
import { useRecording } from '../../sound/recording'
import TabView from '../../tab/TabView.vue'
import type { PickedNotes } from './picked'

/** What was heard, as tab, and what can be done with the notes that are picked in it. */
const props = defineProps<{
  verdict: TakeVerdict | undefined
  picked: PickedNotes
  hasSound: boolean
  /** The bars that are played in again now. */
  punching: { from: number; to: number } | undefined
}>()
const emit = defineEmits<{ hear: []; again: []; punch: [] }>()
const { from, first, marked, notice } = props.picked
const tune = useTune()
const recording = useRecording()
const nothing = computed(() => from.value === undefined)
</script>

<template>
  <div v-if="verdict?.tab.events.length">
    <div class="scroll">
      <TabView
        :line="verdict.tab"
        :strings="tune.map?.instrument.strings ?? []"
        :sounding="undefined"
        :chosen="from"
        :marked="marked"
        label="What was heard, as tab"
        @pick="picked.pick"
      />
    </div>
    <p class="acts">
      <span v-if="first">{{ first.text }}, bar {{ first.bar }}</span>
      <span v-else class="quiet">Pick the first note of a phrase, then its last.</span>
      <button
        type="button"
        class="chip"
        :disabled="nothing"
        title="Keep these notes as a lick (k)"
        @click="picked.keepLick()"
      >
        keep as a lick
      </button>
      <button type="button" class="chip" :disabled="nothing || !hasSound" @click="emit('hear')">
        hear from there
      </button>
      <button type="button" class="chip" :disabled="nothing" @click="emit('again')">again, these bars</button>
      <button
        type="button"
        class="chip"
        :disabled="nothing || recording.recordsNow"
        title="Record these bars again in their place (p)"
        @click="emit('punch')"
      >
        play them in again
      </button>
      <span v-if="punching" role="status"
        >Play bar {{ punching.from }}{{ punching.to > punching.from ? ` to ${punching.to}` : '' }} again: it
        ends by itself.</span
      >
      <span v-else role="status">{{ notice }}</span>
    </p>
  </div>
  <p v-else class="quiet empty">No notes yet: record a take, or open a file.</p>
</template>

<style scoped>
.scroll {
  max-height: 12.5rem;
  overflow-y: auto;
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
</style>
