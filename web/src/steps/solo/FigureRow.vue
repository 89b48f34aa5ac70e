<script setup lang="ts">
import type { ChorusView } from '../../api/client'

/** The figures of a chorus in a row; each points at its notes. */
defineProps<{ view: ChorusView }>()
const emit = defineEmits<{ mark: [events: number[]] }>()
</script>

<template>
  <ul class="figures" aria-label="The figures">
    <li v-for="f in view.figures.rows" :key="f.id">
      <button type="button" :disabled="f.events.length === 0" @click="emit('mark', f.events)">
        <span class="name">{{ f.name }}</span>
        <span class="value" :class="{ weak: !f.good }">{{ f.text }}</span>
      </button>
    </li>
    <slot />
  </ul>
</template>

<style scoped>
.figures {
  display: flex;
  align-items: center;
  gap: 0.4rem 0.7rem;
}
button {
  display: flex;
  flex-direction: column;
  border: 0;
  background: none;
  padding: 2px 4px;
  text-align: left;
  cursor: pointer;
  border-radius: 6px;
}
button:disabled {
  cursor: default;
}
button:hover:enabled {
  background: var(--shade);
}
.name {
  font-size: 0.8rem;
  color: var(--stone);
  white-space: nowrap;
}
.value {
  font-size: 1.08rem;
  font-weight: 750;
  color: var(--now);
  white-space: nowrap;
}
.weak {
  color: var(--next);
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
@container main (max-width: 71rem) {
  .figures {
    flex-wrap: wrap;
  }
}
</style>
