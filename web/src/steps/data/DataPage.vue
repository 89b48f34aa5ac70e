<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'
import { useRoute } from 'vue-router'
import { answer, client, type Backups } from '../../api/client'
import NoticeRow from '../../controls/NoticeRow.vue'
import BackupsPanel from './BackupsPanel.vue'
import ExportPanel from './ExportPanel.vue'
import HousePanel from './HousePanel.vue'
import ImportPanel from './ImportPanel.vue'
import { begunAnew, replaced, restoreBackup, type Done } from './replaced'

/** Where everything is kept, its backups, and the way in and out. */
const route = useRoute()
const kept = shallowRef<Backups>()
const problem = ref('')
/** What was replaced before the page was loaded anew. */
const done = shallowRef<Done | undefined>(replaced(route.query))

async function list() {
  try {
    kept.value = await answer(client.GET('/api/backups'))
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
onMounted(list)

async function undo(before: string) {
  try {
    await restoreBackup(before)
    begunAnew({ says: 'It is taken back: everything is as it was.' })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
</script>

<template>
  <section>
    <h1>Your data</h1>
    <p class="quiet lead">
      Everything you keep lies in one file on this machine. Nothing leaves it by itself.
    </p>
    <NoticeRow v-if="problem" alert>{{ problem }}</NoticeRow>
    <NoticeRow v-if="done">
      {{ done.says }}
      <template v-if="done.before" #actions>
        <button type="button" class="chip" @click="undo(done.before)">Undo</button>
      </template>
    </NoticeRow>
    <div v-if="kept" class="columns">
      <BackupsPanel :kept="kept" @made="list" />
      <div class="ways">
        <ExportPanel />
        <ImportPanel />
        <HousePanel />
      </div>
    </div>
  </section>
</template>

<style scoped>
section {
  padding-top: 1.6rem;
}
.lead {
  font-size: 1.15rem;
  margin: 0.4rem 0 1.2rem;
}
.columns {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 1.4rem;
}
.columns > :first-child {
  flex: 1 1 30rem;
  min-width: 0;
}
.ways {
  flex: 1 1 26rem;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 1.4rem;
}
</style>
