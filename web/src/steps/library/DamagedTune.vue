<script setup lang="ts">
import { ref } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client, type ChartEntry } from '../../api/client'
import VersionList from '../../controls/VersionList.vue'

/** A tune that cannot be read: what is wrong with it, and what can still be had of it. */
const props = defineProps<{ entry: ChartEntry }>()
const emit = defineEmits<{ restored: []; remove: [] }>()
const open = ref(false)
const problem = ref('')
const { answer: all, refusal } = useAnswer(
  () => (open.value ? { id: props.entry.id } : undefined),
  ({ id }, signal) => answer(client.GET('/api/charts/{id}/revisions', { params: { path: { id } }, signal })),
)
async function attempt(work: Promise<unknown>) {
  try {
    problem.value = ''
    await answer(work as never)
    emit('restored')
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
const restore = (revision: number) =>
  attempt(
    client.POST('/api/charts/{id}/revisions/{revision}/restore', {
      params: { path: { id: props.entry.id, revision } },
      body: { version: props.entry.version },
    }),
  )
const label = (revision: number, text: string) =>
  attempt(
    client.PUT('/api/charts/{id}/revisions/{revision}/label', {
      params: { path: { id: props.entry.id, revision } },
      body: { label: text },
    }),
  )
</script>

<template>
  <div class="damaged">
    <p>
      <strong>{{ entry.title }}</strong> cannot be read.
      <span class="quiet">{{ entry.damaged }}</span>
    </p>
    <p class="acts">
      <button type="button" class="chip" :aria-expanded="open" @click="open = !open">Earlier versions</button>
      <a class="chip" :href="`/api/charts/${entry.id}/text`" download>Its text</a>
      <button type="button" class="chip" :aria-label="`Delete ${entry.title}`" @click="$emit('remove')">
        Delete
      </button>
    </p>
    <p v-if="problem || refusal" role="alert">{{ problem || refusal }}</p>
    <VersionList v-if="open" :versions="all ?? []" @restore="restore" @label="label" />
  </div>
</template>

<style scoped>
.damaged {
  padding: 0.5rem 0.7rem;
  border-left: 3px solid var(--next-fill);
}
.acts {
  display: flex;
  gap: 0.5rem;
  margin: 0.3rem 0;
}
a.chip {
  color: inherit;
  text-decoration: none;
}
</style>
