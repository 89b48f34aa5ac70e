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
  <div class="tune">
    <RouterLink
      :to="{ name: 'chart', params: { id: entry.id } }"
      :aria-label="`${entry.title}, ${factsOf(entry)}`"
    >
      <strong class="name">{{ entry.title }}</strong>
      <span class="facts quiet">{{ factsOf(entry) }}</span>
    </RouterLink>
    <span v-if="entry.mended" class="quiet small" :title="entry.mended.join('; ')">has repaired values</span>
    <span v-else class="quiet small">{{ practised(entry) }}</span>
  </div>
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
/* When it was practised stands under the title, within what is pressed and no part of its name. */
.tune {
  flex: 1;
  min-width: 0;
  position: relative;
}
.small {
  position: absolute;
  left: 0.6rem;
  bottom: 0.4rem;
  pointer-events: none;
  font-size: 0.84rem;
}
a {
  display: flex;
  align-items: center;
  justify-content: space-between;
  flex-wrap: wrap;
  gap: 0 1rem;
  padding: 0.5rem 0.6rem 1.5rem;
  border-radius: 8px;
  color: inherit;
  text-decoration: none;
}
a:hover {
  background: var(--now-tint);
}
.name {
  min-width: 0;
  overflow-wrap: anywhere;
  flex: 1 1 11rem;
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
