<script setup lang="ts">
import PillSelect from '../../controls/PillSelect.vue'
import { parts } from './address'

/** What of the solo is heard, and how. */
defineProps<{ part: (typeof parts)[number]['value']; dropped: boolean }>()
defineEmits<{ part: [part: (typeof parts)[number]['value']]; drop: []; again: [] }>()
</script>

<template>
  <li class="acts">
    <PillSelect
      label="What is heard"
      :chosen="part"
      :options="[...parts]"
      @choose="(one) => $emit('part', one)"
    />
    <button
      type="button"
      class="chip"
      :aria-pressed="dropped"
      title="Drop the band (d)"
      @click="$emit('drop')"
    >
      drop the band
    </button>
    <button
      type="button"
      class="primary"
      title="Another seed; what is locked stays (p)"
      @click="$emit('again')"
    >
      Plan again
    </button>
  </li>
</template>

<style scoped>
.acts {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
  min-width: 0;
}
.primary {
  padding: 0.4rem 1rem;
}
.chip {
  padding: 0.18rem 0.65rem;
}
</style>
