<script setup lang="ts">
import { ref } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client } from '../../api/client'
import VersionList from '../../controls/VersionList.vue'
import { useTune } from '../../document/tune'

/** Every version that was saved, newest first, and the way back to each. */
const tune = useTune()
const named = ref(0)
const { answer: all, refusal } = useAnswer(
  () => (tune.id ? { id: tune.id, version: tune.version, named: named.value } : undefined),
  ({ id }, signal) => answer(client.GET('/api/charts/{id}/revisions', { params: { path: { id } }, signal })),
)
async function label(revision: number, text: string) {
  try {
    await answer(
      client.PUT('/api/charts/{id}/revisions/{revision}/label', {
        params: { path: { id: tune.id, revision } },
        body: { label: text },
      }),
    )
    named.value++
  } catch (error) {
    tune.tell(error)
  }
}
</script>

<template>
  <p class="quiet">
    Every change is saved by itself. Edits less than five minutes apart are one version; a version with a name
    is always kept.
  </p>
  <p v-if="refusal" role="alert">{{ refusal }}</p>
  <VersionList class="list" :versions="all ?? []" @restore="tune.restore" @label="label" />
</template>

<style scoped>
.list {
  margin-top: 0.6rem;
}
</style>
