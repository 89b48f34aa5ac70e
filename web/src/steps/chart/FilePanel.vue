<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client } from '../../api/client'
import { useTune } from '../../document/tune'
import LessonSheet from './LessonSheet.vue'

/** Taking the chart away: as a file, on paper, as a copy; and deleting it. */
const tune = useTune()
const router = useRouter()
const about: Record<string, string> = {
  grid: 'text that Undaris reads back whole',
  chordpro: 'without imagined chords',
  musicxml: 'for notation programs',
  mxl: 'the same, smaller',
  midi: 'chords, bass and click as they sound',
}
const leaving = ref(false)
const href = computed(() => (name: string) => `/api/charts/${tune.id}/export/${name}`)

/** The file is of what is saved, so what is on its way is waited for. */
async function take(event: MouseEvent, name: string) {
  if (tune.saveState === 'saved') return
  event.preventDefault()
  if (await tune.settled()) location.assign(href.value(name))
}

function print() {
  window.print()
}

async function duplicate() {
  if (!(await tune.settled())) return
  try {
    const copy = await answer(
      client.POST('/api/charts/{id}/duplicate', { params: { path: { id: tune.id } } }),
    )
    await router.push({ name: 'chart', params: { id: copy.id } })
  } catch (error) {
    tune.tell(error)
  }
}

async function remove() {
  leaving.value = true
  if (!(await tune.settled())) return
  try {
    await answer(
      client.DELETE('/api/charts/{id}', {
        params: { path: { id: tune.id }, query: { version: tune.version } },
      }),
    )
    const gone = tune.id
    tune.forget(gone)
    await router.push({ name: 'start', query: { deleted: gone } })
  } catch (error) {
    tune.tell(error)
  }
}
</script>

<template>
  <LessonSheet />
  <h2>Export</h2>
  <ul>
    <li v-for="format in tune.choices?.formats" :key="format.name">
      <a class="chip" :href="href(format.name)" download @click="take($event, format.name)">{{
        format.title
      }}</a>
      <span class="quiet">{{ about[format.name] }}</span>
    </li>
    <li>
      <button type="button" class="chip" @click="print">Print the chart</button>
      <span class="quiet">on paper, or as PDF by your browser</span>
    </li>
  </ul>
  <h2>This tune</h2>
  <div class="line">
    <button type="button" class="chip" @click="duplicate">Duplicate</button>
    <button type="button" class="chip" :disabled="leaving" @click="remove">Delete</button>
    <span class="quiet">a deleted tune can be brought back</span>
  </div>
</template>

<style scoped>
h2 {
  margin: 0.4rem 0;
}
ul {
  margin-bottom: 1rem;
}
li,
.line {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  margin-bottom: 0.55rem;
}
a.chip {
  color: inherit;
  text-decoration: none;
}
</style>
