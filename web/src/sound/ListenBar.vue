<script setup lang="ts">
import { signs } from '../controls/spelling'
import InputChoice from './InputChoice.vue'
import type { Listening } from './listening'
import { useRecording } from './recording'

/** The switch for listening, the input, and what is heard of it. */
defineProps<{ listening: Listening; disabled?: boolean }>()
const recording = useRecording()
</script>

<template>
  <span class="listen" role="group" aria-label="Listening">
    <button
      type="button"
      class="chip"
      :aria-pressed="listening.listens.value"
      :disabled="disabled || recording.recordsNow"
      title="Nothing is kept, and nothing leaves this machine"
      @click="listening.toggle()"
    >
      <span class="light" :class="{ on: listening.listens.value }" aria-hidden="true" />
      {{ listening.listens.value ? 'listening' : 'listen' }}
    </button>
    <InputChoice v-if="!listening.listens.value" />
    <b v-else class="now">{{ recording.sounding ? signs(recording.sounding.note) : '–' }}</b>
    <span v-if="recording.heard?.clipped" class="warn" role="alert">too loud</span>
    <span v-if="recording.trouble" class="warn" role="alert">{{ recording.trouble }}.</span>
  </span>
</template>

<style scoped>
.listen {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.chip {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.light {
  width: 10px;
  height: 10px;
  border-radius: 50%;
  border: 2px solid var(--stone);
}
.light.on {
  background: var(--next);
  border-color: var(--next);
}
.now {
  min-width: 2.4em;
  font-size: 1.15rem;
  color: var(--now);
}
.warn {
  color: var(--next);
}
</style>
