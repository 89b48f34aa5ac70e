<script setup lang="ts">
import { computed } from 'vue'
import { signs } from '../../controls/spelling'
import type { SoloWork } from './work'

/** Why the note is there that is looked at; else what the last edit or plan had to say. */
const props = defineProps<{
  work: SoloWork
  event: number | undefined
  /** The time line is open, whose notes and blocks the hint is about. */
  online: boolean
}>()
const { shown, notice, notStayed, concessions } = props.work
const says = computed(() => {
  const why = shown.value?.tab.events[props.event ?? -1]?.why
  if (why) return signs(why)
  if (notice.value) return `${signs(notice.value)}.`
  if (notStayed.value.length) return `With the tune: ${signs(notStayed.value.map((c) => c.text).join('; '))}.`
  return concessions.value.length ? `${signs(concessions.value.join('. '))}.` : ''
})
</script>

<template>
  <p class="why cut" role="status" :title="says">
    <template v-if="says">{{ says }}</template>
    <span v-else-if="online" class="quiet">
      Every note says why it is there: press one. On a block ← → moves it, ⇧ ← → its end.
    </span>
  </p>
</template>

<style scoped>
.why {
  min-height: 1.4em;
  margin: 2px 0;
  font-size: 0.95rem;
}
</style>
