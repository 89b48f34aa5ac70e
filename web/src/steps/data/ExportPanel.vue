<script setup lang="ts">
import { computed, ref } from 'vue'
import PillSelect from '../../controls/PillSelect.vue'
import { useTune } from '../../document/tune'

/** Everything as one file, or one tune for a friend. */
const tune = useTune()
const takes = ref(true)
const versions = ref(true)
const everything = 'everything'
const chosen = ref(everything)
const options = computed(() => [
  { value: everything, text: 'everything' },
  ...tune.list
    .filter((entry) => !entry.damaged)
    .map((entry) => ({ value: String(entry.id), text: entry.title, ownName: true })),
])
const address = computed(() => {
  const query = new URLSearchParams({ takes: String(takes.value), versions: String(versions.value) })
  if (chosen.value !== everything) query.set('tune', chosen.value)
  return `/api/bundle?${query}`
})
</script>

<template>
  <div class="bench" role="region" aria-label="Take it with you">
    <h2>Take it with you</h2>
    <p class="quiet">
      One file for another machine, or one tune with its lines, solos, licks and exercises for a friend.
    </p>
    <div class="choices">
      <PillSelect
        label="What goes"
        :chosen="chosen"
        :options="options"
        @choose="(value) => (chosen = value)"
      />
      <button type="button" class="chip" :aria-pressed="takes" @click="takes = !takes">recordings</button>
      <button type="button" class="chip" :aria-pressed="versions" @click="versions = !versions">
        earlier versions
      </button>
    </div>
    <a class="download" :href="address" download>Save the file</a>
  </div>
</template>

<style scoped>
.bench {
  padding: 1.1rem 1.3rem;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 0.7rem 0 0.9rem;
}
.download {
  display: inline-block;
  padding: 0.5rem 1rem;
  border-radius: 8px;
  border: 1px solid currentColor;
  color: var(--ink);
  font-weight: 650;
  text-decoration: none;
}
.download:hover {
  background: var(--shade);
}
</style>
