<script setup lang="ts">
import { computed } from 'vue'
import { saveStates } from '../document/unsaved'

/** Whether all that was edited is saved, whatever it is. */
const words = { saved: 'saved', saving: 'saving…', failed: 'not saved' }
const state = computed(() => {
  const all = saveStates()
  if (all.some((s) => s === 'failed' || s === 'conflict' || s === 'gone')) return 'failed'
  return all.includes('saving') ? 'saving' : 'saved'
})
</script>

<template>
  <span class="saved quiet" :class="state" role="status">{{ words[state] }}</span>
</template>

<style scoped>
.saved {
  flex: none;
  min-width: 3.2rem;
  text-align: right;
  font-size: 0.9rem;
}
.failed {
  color: var(--next);
  font-weight: 650;
}
</style>
