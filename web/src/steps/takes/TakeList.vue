<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { answer, client, type RecordingBegun, type TakeEntry } from '../../api/client'
import { useTune } from '../../document/tune'
import { useTakesQuery } from './address'
import WeeksPicture from './WeeksPicture.vue'
import type { TakesWork } from './work'

/** The takes of the tune, how they went over time, and recordings that were cut off. */
const props = defineProps<{ work: TakesWork }>()
const { takes, chosen } = props.work
const tune = useTune()
const query = useTakesQuery()
const unfinished = ref<RecordingBegun[]>([])
const gone = ref<TakeEntry>()
async function listUnfinished() {
  unfinished.value = await answer(client.GET('/api/recordings', {}))
}
onMounted(() => listUnfinished().catch(tune.tell))

async function attempt(work: () => Promise<unknown>) {
  try {
    await work()
  } catch (error) {
    tune.tell(error)
  }
}
const remove = (take: TakeEntry) =>
  attempt(async () => {
    await answer(
      client.DELETE('/api/takes/{id}', {
        params: { path: { id: take.id }, query: { version: take.version } },
      }),
    )
    gone.value = take
    await props.work.list()
  })
const restore = (take: TakeEntry) =>
  attempt(async () => {
    await answer(client.POST('/api/takes/{id}/restore', { params: { path: { id: take.id } } }))
    gone.value = undefined
    await props.work.list()
  })
const recover = (one: RecordingBegun) =>
  attempt(async () => {
    const take = props.work.emptyDraft('microphone')
    await answer(
      client.POST('/api/recordings/{id}/take', {
        params: { path: { id: one.id }, query: { asBegun: true } },
        body: { chartId: tune.id, take: { ...take, name: one.name || take.name } },
      }),
    )
    await Promise.all([props.work.list(), listUnfinished()])
  })
const drop = (one: RecordingBegun) =>
  attempt(async () => {
    await client.DELETE('/api/recordings/{id}', { params: { path: { id: one.id } } })
    await listUnfinished()
  })
const size = (bytes: number) => (bytes ? `${(bytes / 1e6).toFixed(1)} MB` : 'no sound')
const day = (text: string) => new Date(text).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })
</script>

<template>
  <div class="list">
    <p v-for="one in unfinished" :key="one.id" class="warn" role="alert">
      A recording was cut off: {{ one.name }}, {{ Math.round(one.seconds) }} s.
      <button type="button" class="chip" @click="recover(one)">keep what is there</button>
      <button type="button" class="chip" @click="drop(one)">throw it away</button>
    </p>
    <p v-if="gone">
      {{ gone.name }} is deleted.
      <button type="button" class="chip" @click="restore(gone)">bring it back</button>
    </p>
    <p v-if="!takes.length && !unfinished.length" class="quiet">
      No take of this tune yet. Press “Record a take”: the band counts you in, and you hear what your notes
      say of the chords.
    </p>
    <div v-else class="both">
      <table>
        <thead>
          <tr>
            <th scope="col">take</th>
            <th scope="col">played</th>
            <th scope="col">notes</th>
            <th scope="col">landed</th>
            <th scope="col">steady within</th>
            <th scope="col">leans</th>
            <th scope="col">sound</th>
            <th scope="col"><span class="hidden">delete</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="take in takes" :key="take.id" :class="{ chosen: chosen?.id === take.id }">
            <td>
              <button type="button" class="name" @click="query.set({ take: take.id, bench: 'verdict' })">
                {{ take.name }}
              </button>
            </td>
            <td>{{ day(take.began) }}</td>
            <td>{{ take.notes }}</td>
            <td>{{ take.landed }} of {{ take.landings }}</td>
            <td>{{ Math.round(take.spread) }} ms</td>
            <td>{{ Math.round(take.lean) }} ms</td>
            <td>{{ size(take.bytes) }}</td>
            <td>
              <button type="button" class="chip" :aria-label="`Delete ${take.name}`" @click="remove(take)">
                delete
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <WeeksPicture
        v-if="takes.length > 1"
        :takes="takes"
        :chosen="chosen?.id"
        @choose="(id) => query.set({ take: id })"
      />
    </div>
  </div>
</template>

<style scoped>
.list {
  max-height: var(--panel-most, 15.33rem);
  overflow: auto;
}
.both {
  display: flex;
  align-items: flex-start;
  gap: 26px;
}
@container main (max-width: 58rem) {
  .both {
    flex-direction: column;
  }
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--stone);
}
td,
th {
  padding: 3px 14px 3px 0;
}
tr.chosen td {
  background: var(--shade);
}
.name {
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  font-weight: 650;
  cursor: pointer;
  padding: 2px 6px;
  text-align: left;
}
.warn {
  color: var(--next);
}
.hidden {
  position: absolute;
  clip-path: inset(50%);
}
</style>
