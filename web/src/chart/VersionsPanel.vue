<script setup lang="ts">
import { shallowRef, watch } from 'vue'
import { answer, client, type ChartRevision } from '../api/client'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'

/** Every version that was saved, newest first, and the way back to each. */
const tune = useTune()
const all = shallowRef<ChartRevision[]>([])

watch(
  () => [tune.id, tune.version] as const,
  async ([id]) => {
    if (!id) return
    try {
      all.value = await answer(client.GET('/api/charts/{id}/revisions', { params: { path: { id } } }))
    } catch (error) {
      tune.tell(error)
    }
  },
  { immediate: true },
)

const when = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})
</script>

<template>
  <p class="quiet">Every change is saved by itself. What it replaced is kept here.</p>
  <ol>
    <li v-for="r in all" :key="r.version">
      <div>
        <strong>{{ r.version }}</strong>
        <span class="quiet"> {{ when.format(new Date(r.saved)) }}</span>
        <p>{{ r.changes.length ? signs(r.changes.join('; ')) : 'saved again, nothing changed' }}</p>
      </div>
      <span v-if="r.current" class="quiet">now</span>
      <button
        v-else
        type="button"
        class="chip"
        :aria-label="`Restore version ${r.version}`"
        @click="tune.restore(r.version)"
      >
        Restore
      </button>
    </li>
  </ol>
</template>

<style scoped>
ol {
  margin-top: 0.6rem;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.8rem;
  padding: 0.4rem 0;
  border-top: 1px solid var(--line);
}
p {
  overflow-wrap: anywhere;
}
</style>
