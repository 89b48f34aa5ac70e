<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { answer, client, type Exercise, type Lick } from '../api/client'
import NoticeRow from '../controls/NoticeRow.vue'
import { createdAs } from '../api/created'
import { drafts } from './browser'
import type { Draft } from './drafts'
import { newUid } from './uid'

/** What was begun on an earlier page and never saved: a lick that was written while the program was away, say. */
const emit = defineEmits<{ kept: [kind: string] }>()
const left = ref<Draft[]>([])
const problem = ref('')
const keepers: Record<string, (body: unknown, uid: string) => Promise<unknown>> = {
  lick: (body, uid) => answer(client.POST('/api/licks', { body: body as Lick, params: createdAs(uid) })),
  exercise: (body, uid) =>
    answer(client.POST('/api/exercises', { body: body as Exercise, params: createdAs(uid) })),
}
async function find() {
  const all = await Promise.all(Object.keys(keepers).map((kind) => drafts.left(kind, 0)))
  left.value = all.flat()
}
onMounted(find)

async function keep(draft: Draft) {
  problem.value = ''
  try {
    await keepers[draft.kind]!(draft.body, draft.uid ?? newUid())
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
  <NoticeRow v-for="draft in left" :key="draft.kind + draft.page">
    “{{ draft.name }}”, a new {{ draft.kind }} of {{ when.format(new Date(draft.at)) }}, was never saved.
    <template #actions>
      <button type="button" class="chip" @click="keep(draft)">Keep it</button>
      <button type="button" class="chip" @click="drop(draft)">Drop it</button>
    </template>
  </NoticeRow>
  <NoticeRow v-if="problem" alert>{{ problem }}</NoticeRow>
</template>
