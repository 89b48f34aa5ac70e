<script setup lang="ts">
/** Something that is told above what is worked on, and beside it what can be done. An alert is said at once. */
defineProps<{ alert?: boolean }>()
defineSlots<{ default(): unknown; actions?(): unknown }>()
</script>

<template>
  <p class="notice" :role="alert ? 'alert' : 'status'">
    <span><slot /></span>
    <slot name="actions" />
  </p>
</template>

<style scoped>
.notice {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.8rem;
  align-items: center;
  padding: 0.45rem 0.8rem;
  margin-bottom: 0.4rem;
  border-radius: 8px;
  background: var(--next-tint);
  color: var(--ink);
}
.notice span {
  flex: 1;
  min-width: 14rem;
}
</style>
