<script setup lang="ts">
import { computed } from 'vue'
import { useTitles } from '../controls/titles'

const shown = useTitles()
/** Below what it belongs to, or above where there is no room below; never past an edge. */
const place = computed(() => {
  const at = shown.value?.at
  if (!at) return {}
  const above = at.bottom > innerHeight - 96
  const middle = at.left + at.width / 2
  return {
    left: `clamp(8px, ${middle}px - min(20rem, 100vw - 16px) / 2, 100vw - 8px - min(20rem, 100vw - 16px))`,
    ...(above ? { bottom: `${innerHeight - at.top + 8}px` } : { top: `${at.bottom + 8}px` }),
  }
})
</script>

<template>
  <p v-if="shown" class="tip" role="tooltip" :style="place">
    <span>{{ shown.text }}</span>
  </p>
</template>

<style scoped>
.tip {
  position: fixed;
  z-index: 4000;
  width: min(20rem, 100vw - 16px);
  text-align: center;
  pointer-events: none;
}
.tip span {
  display: inline-block;
  padding: 0.35rem 0.7rem;
  border-radius: 8px;
  background: var(--ink);
  color: var(--card);
  text-align: left;
}
</style>
