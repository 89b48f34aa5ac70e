<script setup lang="ts" generic="Body, Shown">
import { computed, ref } from 'vue'
import type { Kept } from './kept'

/** What stands in the way of a document's saving, or was left behind by an earlier page, and what can be done. */
const props = defineProps<{ document: Kept<Body, Shown>; what: string; mended?: string[] }>()
const emit = defineEmits<{ keptAsNew: [id: number] }>()
const problem = ref('')

const state = computed(() => props.document.state.value)
const draft = computed(() => props.document.draft.value)
const when = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})

async function attempt(work: () => Promise<unknown>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
const theirs = () => attempt(() => props.document.takeTheirs())
const mine = () => attempt(() => props.document.keepMine())
const asNew = () =>
  attempt(async () => {
    const id = await props.document.keepAsNew()
    if (id) emit('keptAsNew', id)
  })
</script>

<template>
  <p v-if="state === 'conflict'" class="notice" role="alert">
    <span>This {{ what }} was saved elsewhere in the meantime; nothing was overwritten.</span>
    <button type="button" class="chip" @click="theirs">Show what was saved</button>
    <button type="button" class="chip" @click="mine">Keep mine as the newest version</button>
    <button type="button" class="chip" @click="asNew">Keep mine as a new {{ what }}</button>
  </p>
  <p v-else-if="state === 'gone'" class="notice" role="alert">
    <span>This {{ what }} was deleted elsewhere in the meantime; what you see is still here.</span>
    <button type="button" class="chip" @click="mine">Restore it and keep mine</button>
    <button type="button" class="chip" @click="asNew">Keep mine as a new {{ what }}</button>
  </p>
  <p v-else-if="state === 'failed'" class="notice" role="alert">
    <span>Not saved: {{ document.reason }} It is kept in this browser meanwhile.</span>
    <button type="button" class="chip" @click="document.retry()">Try again</button>
  </p>
  <p v-if="draft" class="notice" role="status">
    <span>
      “{{ draft.name }}” has edits of {{ when.format(new Date(draft.at)) }} that were never saved.
      <template v-if="draft.version !== document.version.value">
        It was saved as version {{ document.version.value }} since; taken up, that stays among the versions.
      </template>
    </span>
    <button type="button" class="chip" @click="document.takeDraft()">Take them up</button>
    <button type="button" class="chip" @click="document.dropDraft()">Drop them</button>
  </p>
  <p v-if="mended?.length" class="notice" role="status">
    <span>Not as it is kept, until it is saved: {{ mended.join('; ') }}.</span>
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
  color: var(--ink);
}
.notice span {
  flex: 1;
  min-width: 14rem;
}
</style>
