<script setup lang="ts" generic="Body, Shown">
import { computed, onUnmounted, ref, watch } from 'vue'
import NoticeRow from '../controls/NoticeRow.vue'
import type { Kept } from './kept'
import { noticeIsShown } from './unsaved'

/**
 * What stands in the way of a document's saving, or was left behind by an earlier page, and what can be done. Elsewhere
 * than on the document's own view it is called by its name.
 */
const props = defineProps<{
  document: Kept<Body, Shown>
  what: string
  mended?: string[]
  elsewhere?: boolean
}>()
const emit = defineEmits<{ keptAsNew: [id: number] }>()
const problem = ref('')

let hide = () => {}
watch(
  () => props.document,
  (document) => {
    hide()
    hide = props.elsewhere ? () => {} : noticeIsShown(document)
  },
  { immediate: true },
)
onUnmounted(() => hide())

const name = computed(() => {
  if (!props.elsewhere) return `This ${props.what}`
  const called = props.document.called
  return called.startsWith('the ') ? `T${called.slice(1)}` : `The ${props.what} “${called}”`
})
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
  <NoticeRow v-if="state === 'conflict'" alert>
    {{ name }} was saved elsewhere in the meantime; nothing was overwritten.
    <template #actions>
      <button type="button" class="chip" @click="theirs">Show what was saved</button>
      <button type="button" class="chip" @click="mine">Keep mine as the newest version</button>
      <button type="button" class="chip" @click="asNew">Keep mine as a new {{ what }}</button>
    </template>
  </NoticeRow>
  <NoticeRow v-else-if="state === 'gone'" alert>
    {{ name }} was deleted elsewhere in the meantime; what you see is still here.
    <template #actions>
      <button type="button" class="chip" @click="mine">Restore it and keep mine</button>
      <button type="button" class="chip" @click="asNew">Keep mine as a new {{ what }}</button>
    </template>
  </NoticeRow>
  <NoticeRow v-else-if="state === 'failed'" alert>
    {{ elsewhere ? `${name} is not saved` : 'Not saved' }}: {{ document.reason }} It is kept in this browser
    meanwhile.
    <template #actions>
      <button type="button" class="chip" @click="document.retry()">Try again</button>
    </template>
  </NoticeRow>
  <NoticeRow v-if="draft">
    “{{ draft.name }}” has edits of {{ when.format(new Date(draft.at)) }} that were never saved.
    <template v-if="draft.version !== document.version.value">
      It was saved as version {{ document.version.value }} since; taken up, that stays among the versions.
    </template>
    <template #actions>
      <button type="button" class="chip" @click="document.takeDraft()">Take them up</button>
      <button type="button" class="chip" @click="document.dropDraft()">Drop them</button>
    </template>
  </NoticeRow>
  <NoticeRow v-if="mended?.length">
    Not as it is kept, until it is saved: {{ mended.join('; ') }}.
  </NoticeRow>
  <NoticeRow v-if="problem" alert>{{ problem }}</NoticeRow>
</template>
