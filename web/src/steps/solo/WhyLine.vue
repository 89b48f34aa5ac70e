<script setup lang="ts">
import { computed } from 'vue'
import { signs } from '../../controls/spelling'
import type { SoloWork } from './work'

/** Why the note is there that is looked at; else what the last edit or plan had to say. */
const props = defineProps<{ work: SoloWork; event: number | undefined }>()
const { shown, notice, notStayed, concessions } = props.work
const why = computed(() => shown.value?.tab.events[props.event ?? -1]?.why)
</script>

<template>
  <p class="why" role="status">
    <template v-if="why">{{ signs(why) }}</template>
    <template v-else-if="notice">{{ signs(notice) }}.</template>
    <template v-else-if="notStayed.length">
      With the tune: {{ signs(notStayed.map((c) => c.text).join('; ')) }}.
    </template>
    <template v-else-if="concessions.length">{{ signs(concessions.join('. ')) }}.</template>
    <span v-else class="quiet">
      Every note says why it is there: click one. On a block ← → moves it, ⇧ ← → its end.
    </span>
  </p>
</template>

<style scoped>
.why {
  min-height: 1.4em;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  margin: 2px 0;
  font-size: 0.95rem;
}
</style>
