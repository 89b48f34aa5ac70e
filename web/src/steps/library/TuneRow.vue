<script setup lang="ts">
import AppIcon from '../../controls/AppIcon.vue'
import type { ChartEntry } from '../../api/client'
import { factsOf } from './ordering'

/** One tune of the list: it opens with a click, and can be duplicated or deleted. */
defineProps<{ entry: ChartEntry }>()
defineEmits<{ duplicate: []; remove: [] }>()

const day = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' })
const practised = (entry: ChartEntry) =>
  entry.practised ? `practised ${day.format(new Date(entry.practised))}` : 'not practised yet'
</script>

<template>
  <RouterLink
    :to="{ name: 'chart', params: { id: entry.id } }"
    :aria-label="`${entry.title}, ${factsOf(entry)}`"
  >
    <span class="name">
      <strong>{{ entry.title }}</strong>
      <span v-if="entry.mended" class="quiet small" :title="entry.mended.join('; ')"
        >has repaired values</span
      >
      <span v-else class="quiet small">{{ practised(entry) }}</span>
    </span>
    <span class="facts quiet">{{ factsOf(entry) }}</span>
  </RouterLink>
  <button
    type="button"
    class="icon"
    :aria-label="`Duplicate ${entry.title}`"
    title="Duplicate"
    @click="$emit('duplicate')"
  >
    <AppIcon name="copy" />
  </button>
  <button
    type="button"
    class="icon"
    :aria-label="`Delete ${entry.title}`"
    title="Delete"
    @click="$emit('remove')"
  >
    <AppIcon name="trash" />
  </button>
</template>

<style scoped>
a {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  justify-content: space-between;
  flex-wrap: wrap;
  gap: 0 1rem;
  padding: 0.5rem 0.6rem;
  border-radius: 8px;
  color: inherit;
  text-decoration: none;
}
a:hover {
  background: var(--now-tint);
}
.name {
  display: flex;
  flex-direction: column;
  min-width: 0;
  overflow-wrap: anywhere;
  flex: 1 1 11rem;
}
.small {
  font-size: 0.84rem;
}
.facts {
  flex: 0 1 auto;
}
.icon {
  width: 34px;
  height: 34px;
  border: 0;
  border-radius: 8px;
  background: none;
  color: var(--stone);
  cursor: pointer;
}
.icon:hover {
  background: var(--shade);
  color: var(--ink);
}
</style>
