<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { hints, hintsOn, putAway, putHintAway, showHints } from '../controls/hints'

/** What the step that is open is for, until it is put away. */
const route = useRoute()
const step = computed(() => String(route.name ?? ''))
const text = computed(() =>
  hintsOn.value && !putAway.value.includes(step.value) ? hints[step.value] : undefined,
)
</script>

<template>
  <aside v-if="text" class="hint" aria-label="What this step is for">
    <p>{{ text }}</p>
    <button type="button" class="chip" @click="putHintAway(step)">Put away</button>
    <button type="button" class="chip" @click="showHints(false)">No more hints</button>
  </aside>
</template>

<style scoped>
.hint {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.8rem;
  margin-bottom: 8px;
  padding: 0.5rem 0.9rem;
  border-radius: 10px;
  background: var(--now-tint);
}
p {
  flex: 1 1 24rem;
}
</style>
