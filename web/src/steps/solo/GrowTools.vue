<script setup lang="ts">
import type { Growing } from './growing'

/** Thins the chorus to its skeleton, or grows it. */
defineProps<{ growing: Growing }>()
</script>

<template>
  <span class="stage" role="group" aria-label="How far it is grown">
    <button
      type="button"
      class="chip"
      aria-label="Thin it"
      :disabled="growing.thinnest.value"
      @click="growing.grow(-1)"
    >
      −
    </button>
    <span class="quiet">{{ growing.called.value }}</span>
    <button
      type="button"
      class="chip"
      aria-label="Grow it"
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
