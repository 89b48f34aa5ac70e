<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { answer, client, type Exercise, type Lick } from '../api/client'
import { drafts } from './browser'
import type { Draft } from './drafts'

/** What was begun on an earlier page and never saved: a lick that was written while the program was away, say. */
const emit = defineEmits<{ kept: [kind: string] }>()
const left = ref<Draft[]>([])
const problem = ref('')
const keepers: Record<string, (body: unknown) => Promise<unknown>> = {
  lick: (body) => answer(client.POST('/api/licks', { body: body as Lick })),
  exercise: (body) => answer(client.POST('/api/exercises', { body: body as Exercise })),
}
async function find() {
  const all = await Promise.all(Object.keys(keepers).map((kind) => drafts.left(kind, 0)))
  left.value = all.flat()
}
onMounted(find)

async function keep(draft: Draft) {
  problem.value = ''
  try {
    await keepers[draft.kind]!(draft.body)
    await drop(draft)
    emit('kept', draft.kind)
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
async function drop(draft: Draft) {
  await drafts.drop(draft.kind, draft.id, draft.page)
  await find()
}
const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <p v-for="draft in left" :key="draft.kind + draft.page" class="notice" role="status">
    <span>
      “{{ draft.name }}”, a new {{ draft.kind }} of {{ when.format(new Date(draft.at)) }}, was never saved.
    </span>
    <button type="button" class="chip" @click="keep(draft)">Keep it</button>
    <button type="button" class="chip" @click="drop(draft)">Drop it</button>
  </p>
  <p v-if="problem" class="notice" role="alert">{{ problem }}</p>
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
}
.notice span {
  flex: 1;
  min-width: 14rem;
}
</style>
