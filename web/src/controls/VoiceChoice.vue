<script setup lang="ts">
import type { Imported } from '../api/client'
import { signs } from './spelling'

/** The tracks and channels of a MIDI file, those that are read pressed. */
type Voice = Imported['voices'][number]
const props = defineProps<{ voices: Voice[] }>()
const emit = defineEmits<{ choose: [ids: string[]] }>()

/** The last one that is read stays: nothing would be left to read. */
function toggle(voice: Voice) {
  const ids = props.voices.filter((v) => v.used !== (v === voice)).map((v) => v.id)
  if (ids.length) emit('choose', ids)
}
</script>

<template>
  <div role="group" aria-label="Tracks and channels" class="voices">
    <button
      v-for="voice in voices"
      :key="voice.id"
      type="button"
      class="chip"
      :aria-pressed="voice.used"
      @click="toggle(voice)"
    >
      <b>{{ voice.name || `track ${voice.track}` }}</b> channel {{ voice.channel }} · {{ voice.plays }} ·
      {{ voice.notes }} notes<template v-if="voice.notes"
        >, {{ signs(voice.low) }}–{{ signs(voice.high) }}</template
      >
    </button>
  </div>
</template>

<style scoped>
.voices {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
