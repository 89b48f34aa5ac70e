<script setup lang="ts">
import { ref } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client, type KeptLick } from '../../api/client'
import VersionList from '../../controls/VersionList.vue'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'

/** The versions of a lick, newest first, and the way back to each. */
const props = defineProps<{ lick: KeptLick }>()
const tune = useTune()
const licks = useLicks()
const named = ref(0)
const { answer: all, refusal } = useAnswer(
  () => ({ id: props.lick.id, version: props.lick.version, named: named.value }),
  ({ id }, signal) => answer(client.GET('/api/licks/{id}/revisions', { params: { path: { id } }, signal })),
)
async function restore(revision: number) {
  const { id } = props.lick
  const one = licks.documents.of(id)
  try {
    await one.load()
    await one.replaceBy(`restore version ${revision}`, async (version) => {
      const kept = await answer(
        client.POST('/api/licks/{id}/revisions/{revision}/restore', {
          params: { path: { id, revision } },
          body: { version },
        }),
      )
      licks.note(kept)
      return { id, version: kept.version, body: kept.lick }
    })
  } catch (error) {
    tune.tell(error)
  }
}
async function label(revision: number, text: string) {
  try {
    await answer(
      client.PUT('/api/licks/{id}/revisions/{revision}/label', {
        params: { path: { id: props.lick.id, revision } },
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
  <p v-if="refusal" role="alert">{{ refusal }}</p>
  <VersionList class="list" :versions="all ?? []" @restore="restore" @label="label" />
</template>

<style scoped>
.list {
  max-height: var(--panel-most, 20rem);
  overflow-y: auto;
}
</style>
