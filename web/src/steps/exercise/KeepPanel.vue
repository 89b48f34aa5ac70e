<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client } from '../../api/client'
import VersionList from '../../controls/VersionList.vue'
import { useExporting } from '../../sound/export'
import type { PerformanceRequest } from '../../api/client'
import { useTune } from '../../document/tune'
import type { ExerciseQuery } from './address'
import type { ExerciseKeeping } from './keeping'
import type { ExerciseWork } from './work'

/** An exercise that is kept: its name and tags, its files, its versions. */
const props = defineProps<{
  work: ExerciseWork
  keeping: ExerciseKeeping
  query: ExerciseQuery
  /** What is heard, to be taken away as sound. */
  heard: PerformanceRequest | undefined
}>()
const tune = useTune()
const exporting = useExporting()
const named = ref(0)

const { answer: versions } = useAnswer(
  () => {
    const id = props.query.id.value
    return id ? { id, version: props.work.document.value.version.value, named: named.value } : undefined
  },
  ({ id }, signal) =>
    answer(client.GET('/api/exercises/{id}/revisions', { params: { path: { id } }, signal })),
)

const textOf = (event: Event) => (event.target as HTMLInputElement).value
const edit = (label: string, change: { name?: string; about?: string; tags?: string[] }) =>
  void props.work.edit(label, (now) => ({ ...now, ...change }))
const splitTags = (text: string) => text.split(',').flatMap((tag) => tag.trim() || [])

async function restore(revision: number) {
  const id = props.query.id.value
  if (!id) return
  try {
    await props.work.document.value.replaceBy(`restore version ${revision}`, async (version) => {
      const kept = await answer(
        client.POST('/api/exercises/{id}/revisions/{revision}/restore', {
          params: { path: { id, revision } },
          body: { version },
        }),
      )
      return { id, version: kept.version, body: kept.exercise }
    })
  } catch (error) {
    tune.tell(error)
  }
}
async function label(revision: number, text: string) {
  const id = props.query.id.value
  if (!id) return
  try {
    await answer(
      client.PUT('/api/exercises/{id}/revisions/{revision}/label', {
        params: { path: { id, revision } },
        body: { label: text },
      }),
    )
    named.value++
  } catch (error) {
    tune.tell(error)
  }
}
const extensions: Record<string, string> = { pdf: 'pdf', tab: 'txt', musicxml: 'musicxml', midi: 'mid' }
const sound = () =>
  props.heard &&
  void exporting.lineAsSound(props.work.exercise.value?.name || props.keeping.freshName(), {
    ...props.heard,
    countIn: 0,
  })
</script>

<template>
  <div class="panel">
    <template v-if="query.id.value && work.exercise.value">
      <label
        >Name
        <InputText
          size="small"
          maxlength="60"
          :model-value="work.exercise.value.name"
          @change="
            (event: Event) => textOf(event).trim() && edit('the name', { name: textOf(event).trim() })
          "
      /></label>
      <label
        >What it is good for
        <InputText
          size="small"
          maxlength="200"
          :model-value="work.exercise.value.about"
          @change="(event: Event) => edit('what it is good for', { about: textOf(event).trim() })"
      /></label>
      <label
        >Tags
        <InputText
          size="small"
          placeholder="separated by commas"
          :model-value="(work.exercise.value.tags ?? []).join(', ')"
          @change="(event: Event) => edit('the tags', { tags: splitTags(textOf(event)) })"
      /></label>
    </template>
    <p v-else class="quiet">It is only tried out. Keep it, and it stands under “Mine” in every tune.</p>
    <div class="choices">
      <button v-if="!query.id.value" type="button" class="chip" @click="keeping.keep()">Keep it (k)</button>
      <button v-else type="button" class="chip" @click="keeping.copy()">Try out a copy</button>
      <button v-if="query.id.value" type="button" class="chip" @click="keeping.remove()">Delete</button>
      <button
        v-if="query.id.value"
        type="button"
        class="chip"
        title="A routine over this tune: four choruses with it, four without"
        @click="keeping.asRoutine()"
      >
        Make a routine of it
      </button>
      <button type="button" class="chip" @click="keeping.editByHand()">Edit its notes as a lick</button>
    </div>
    <h2>Take it away</h2>
    <div class="choices">
      <button
        v-for="f in tune.choices?.soloFormats"
        :key="f.name"
        type="button"
        class="chip"
        :disabled="!work.written.value"
        @click="keeping.takeAway(f.name, extensions[f.name] ?? f.name)"
      >
        {{ f.name === 'pdf' ? 'PDF with the neck shapes' : f.title }}
      </button>
      <button v-if="exporting.rendered" type="button" class="chip" @click="exporting.stop()">
        Stop rendering
      </button>
      <button v-else type="button" class="chip" :disabled="!heard" @click="sound">WAV</button>
    </div>
    <template v-if="query.id.value">
      <h2>Versions</h2>
      <VersionList :versions="versions ?? []" @restore="restore" @label="label" />
    </template>
  </div>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
label {
  display: flex;
  flex-direction: column;
  font-size: 0.88rem;
  color: var(--stone);
}
h2 {
  font-size: 0.92rem;
  font-weight: 600;
  color: var(--stone);
  margin: 4px 0 0;
}
</style>
