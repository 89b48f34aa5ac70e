<script setup lang="ts">
import type { Growing } from './growing'

/** Thins the chorus to its skeleton, or grows it. */
defineProps<{ growing: Growing }>()
</script>

<template>
  <span class="stage" role="group" aria-label="How many notes are shown">
    <button
      type="button"
      class="chip"
      aria-label="Fewer notes"
      :disabled="growing.thinnest.value"
      @click="growing.grow(-1)"
    >
      −
    </button>
    <span class="quiet">{{ growing.called.value }}</span>
    <button
      type="button"
      class="chip"
      aria-label="More notes"
      :disabled="growing.whole.value"
      @click="growing.grow(1)"
    >
      +
    </button>
  </span>
</template>

<style scoped>
.stage {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
  font-size: 0.9rem;
}
</style>
