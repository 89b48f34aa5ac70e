<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { signs } from '../controls/spelling'
import { useSession } from '../document/session'

/** The practice session that runs, while its block is worked on in another view. */
const session = useSession()
const route = useRoute()
const shows = computed(() => session.kept && !session.over && route.params.id !== undefined)
const left = computed(() => {
  const s = Math.round(session.left)
  const text = `${Math.floor(Math.abs(s) / 60)}:${String(Math.abs(s) % 60).padStart(2, '0')}`
  return s < 0 ? `${text} over` : `${text} left`
})
</script>

<template>
  <p v-if="shows && session.block" class="session" role="status">
    <b>{{ signs(session.block.title) }}</b>
    <span class="tabular" :class="{ late: session.left < 0 }">{{ left }}</span>
    <RouterLink :to="{ name: 'practice', params: { id: route.params.id } }">Back to Practice</RouterLink>
  </p>
</template>

<style scoped>
.session {
  display: flex;
  align-items: baseline;
  gap: 0.9rem;
  padding: 0.25rem 0.9rem;
  margin-bottom: 0.4rem;
  border-radius: 8px;
  background: var(--now-tint);
}
a {
  margin-left: auto;
  color: var(--now);
  font-weight: 650;
}
.late {
  color: var(--next);
  font-weight: 700;
}
</style>
