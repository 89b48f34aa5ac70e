<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { signs } from '../controls/spelling'
import { useTakeRecorder } from '../sound/takerecorder'
import { useRecording } from '../sound/recording'

/** The take that is being recorded while another step is on screen. */
const recorder = useTakeRecorder()
const recording = useRecording()
const route = useRoute()
const shows = computed(() => recording.recordsNow && route.name !== 'takes')
const time = computed(() => {
  const s = Math.floor(recording.seconds)
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
})
</script>

<template>
  <p v-if="shows" class="recording" role="group" aria-label="The take that is being recorded">
    <span class="light" aria-hidden="true" />
    <b>Recording {{ signs(recording.over.title) }}</b>
    <span class="tabular">{{ time }}</span>
    <span v-if="recording.trouble" class="warn">{{ recording.trouble }}.</span>
    <span class="acts">
      <RouterLink :to="{ name: 'takes', params: { id: recording.over.id } }">To the take</RouterLink>
      <button type="button" class="chip" @click="recorder.stop()">End the take</button>
    </span>
  </p>
</template>

<style scoped>
.recording {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 0.9rem;
  padding: 0.25rem 0.9rem;
  margin-bottom: 0.4rem;
  border-radius: 8px;
  background: var(--next-tint, var(--shade));
}
.light {
  width: 12px;
  height: 12px;
  border-radius: 50%;
  background: var(--next);
}
.acts {
  display: inline-flex;
  align-items: center;
  gap: 0.9rem;
  margin-left: auto;
}
a {
  color: var(--now);
  font-weight: 650;
}
.warn {
  color: var(--next);
}
</style>
