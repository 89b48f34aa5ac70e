<script setup lang="ts" generic="Name extends string">
/** The head of a bench: what it can show, one of them at a time, and a word beside. */
defineProps<{ tabs: readonly { name: Name; title: string }[]; chosen: Name | undefined }>()
defineEmits<{ choose: [name: Name] }>()
</script>

<template>
  <div class="head">
    <div v-roving="'.tab'" class="tabs" role="tablist">
      <button
        v-for="t in tabs"
        :key="t.name"
        type="button"
        role="tab"
        class="tab"
        :aria-selected="chosen === t.name"
        @click="$emit('choose', t.name)"
      >
        {{ t.title }}
      </button>
    </div>
    <slot />
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 0 1rem;
}
.tab {
  border: 0;
  background: none;
  padding: 0 0 2px;
  color: var(--stone);
  border-bottom: 3px solid transparent;
  cursor: pointer;
  white-space: nowrap;
}
.tab[aria-selected='true'] {
  color: var(--ink);
  font-weight: 650;
  border-bottom-color: var(--now);
}
</style>
