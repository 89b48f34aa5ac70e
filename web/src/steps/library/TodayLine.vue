<script setup lang="ts">
import { computed } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client, type ChartEntry } from '../../api/client'
import { minutesAhead } from '../../document/clock'

/** What there is to practise today, with the way there. */
const props = defineProps<{ tunes: ChartEntry[] }>()
const first = computed(() => props.tunes.find((tune) => !tune.damaged))
const { answer: deck } = useAnswer(
  () => (first.value ? { offset: minutesAhead(), count: 1 } : undefined),
  (query, signal) => answer(client.GET('/api/practice/deck', { params: { query }, signal })),
)
</script>

<template>
  <!-- Its room is there from the start: what is below it does not move when the answer comes. -->
  <p v-if="first" class="today">
    <span>{{ deck?.text }}</span>
    <RouterLink class="primary" :to="{ name: 'practice', params: { id: first.id } }">Practise</RouterLink>
  </p>
</template>

<style scoped>
.today {
  display: flex;
  align-items: center;
  gap: 1rem;
  min-height: 2.6rem;
  margin-bottom: 1rem;
  font-size: 1.1rem;
}
a {
  text-decoration: none;
}
</style>
