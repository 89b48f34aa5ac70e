<script setup lang="ts">
import { computed } from 'vue'
import type { Segment } from '../../api/client'
import PillSelect from '../../controls/PillSelect.vue'
import { named } from '../../controls/options'
import { useTune } from '../../document/tune'

/** What changes when a segment has been played: then it is played again. */
type End = NonNullable<Segment['end']>
const props = defineProps<{ end: End | undefined }>()
const emit = defineEmits<{ set: [end: End | undefined, gesture?: string] }>()
const tune = useTune()

function set(change: Partial<End>, gesture?: string) {
  const next = Object.entries({ ...props.end, ...change }).filter(([, value]) => value)
  emit('set', next.length ? (Object.fromEntries(next) as End) : undefined, gesture)
}
const number = (event: Event) => Number((event.target as HTMLInputElement).value) || undefined
const sameKey = 'same key'
const keySteps = computed(() => named([sameKey, ...(tune.choices?.keySteps ?? [])]))
</script>

<template>
  <span class="group" role="group" aria-label="What changes at its end">
    <span class="quiet">then</span>
    <input
      type="number"
      :value="end?.tempoBy"
      placeholder="+ 0"
      aria-label="Beats a minute faster each time"
      @change="(event) => set({ tempoBy: number(event) }, 'by')"
    />
    <span class="quiet">a minute to</span>
    <input
      type="number"
      :value="end?.tempoTo"
      placeholder="goal"
      aria-label="The tempo it goes to"
      @change="(event) => set({ tempoTo: number(event) }, 'to')"
    />
    <PillSelect
      label="How the key changes"
      :chosen="end?.keyBy || sameKey"
      :options="keySteps"
      @choose="(by) => set({ keyBy: by === sameKey ? undefined : by })"
    />
    <input
      type="number"
      min="0"
      :value="end?.again"
      placeholder="0"
      aria-label="How many times more it is played"
      @change="(event) => set({ again: number(event) }, 'again')"
    />
    <span class="quiet">times more</span>
    <button
      type="button"
      class="chip"
      :aria-pressed="Boolean(end?.wait)"
      title="It goes on until you go on to the next one"
      @click="set({ wait: !end?.wait })"
    >
      wait for me
    </button>
  </span>
</template>
