<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client, type ChartEntry } from '../../api/client'
import PillSelect from '../../controls/PillSelect.vue'
import UnsavedNew from '../../document/UnsavedNew.vue'
import { useTune } from '../../document/tune'
import DamagedTune from './DamagedTune.vue'
import FirstVisit from './FirstVisit.vue'
import ImportTune from './ImportTune.vue'
import NewTune from './NewTune.vue'
import { listed, orders } from './ordering'
import TodayLine from './TodayLine.vue'
import TuneRow from './TuneRow.vue'

const tune = useTune()
const route = useRoute()
const router = useRouter()
const search = ref('')
const tag = ref('')
const order = ref('practised')
const way = ref<'scheme' | 'open'>('scheme')
const problem = ref('')
const gone = shallowRef<ChartEntry[]>([])
const ready = ref(false)

const tags = computed(() => [...new Set(tune.list.flatMap((entry) => entry.tags))].sort())
const shown = computed(() => listed(tune.list, search.value, tag.value, order.value))

/** How many rows are drawn; the others are found by searching. */
const mostShown = 200

/** The tunes that cannot be read: they are listed with what is wrong, and hide no others. */
const broken = computed(() => tune.list.filter((entry) => entry.damaged))

async function list() {
  const [, deleted] = await Promise.all([tune.listAll(), answer(client.GET('/api/charts/deleted'))])
  gone.value = deleted
}
const attempt = async (work: () => Promise<unknown>) => {
  try {
    problem.value = ''
    await work()
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
onMounted(() =>
  attempt(async () => {
    await list()
    ready.value = true
  }),
)

/** What was deleted a moment ago, and so can be brought back at once. */
const justDeleted = computed(() => gone.value.find((entry) => String(entry.id) === route.query.deleted))

const duplicate = (entry: ChartEntry) =>
  attempt(async () => {
    await answer(client.POST('/api/charts/{id}/duplicate', { params: { path: { id: entry.id } } }))
    await list()
  })
const remove = (entry: ChartEntry) =>
  attempt(async () => {
    await answer(
      client.DELETE('/api/charts/{id}', {
        params: { path: { id: entry.id }, query: { version: entry.version } },
      }),
    )
    tune.forget(entry.id)
    await list()
    await router.replace({ query: { deleted: entry.id } })
  })
const restore = (entry: ChartEntry) =>
  attempt(async () => {
    await answer(client.POST('/api/charts/{id}/restore', { params: { path: { id: entry.id } } }))
    await list()
  })
</script>

<template>
  <section>
    <h1>Play through the changes</h1>
    <p class="quiet lead">
      If the band dropped out, would the notes you played still tell the listener which chord is on?
    </p>
    <UnsavedNew />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-if="justDeleted" class="problem" role="status">
      “{{ justDeleted.title }}” is deleted.
      <button type="button" class="chip" @click="restore(justDeleted)">Restore it</button>
    </p>
    <TodayLine v-if="ready" :tunes="tune.list" />
    <div v-if="ready" class="columns">
      <div v-if="tune.list.length" class="bench tunes">
        <div class="head">
          <h2>Your tunes</h2>
          <InputText
            v-model="search"
            class="search"
            type="search"
            placeholder="Search"
            aria-label="Search tunes"
          />
          <PillSelect label="Order" :chosen="order" :options="orders" @choose="(value) => (order = value)" />
        </div>
        <div v-if="tags.length" class="choices">
          <button
            v-for="name in tags"
            :key="name"
            type="button"
            class="chip"
            :aria-pressed="tag === name"
            @click="tag = tag === name ? '' : name"
          >
            {{ name }}
          </button>
        </div>
        <ul>
          <li v-for="entry in broken" :key="entry.id" class="broken">
            <DamagedTune :entry="entry" @restored="attempt(list)" @remove="remove(entry)" />
          </li>
          <li v-for="entry in shown.slice(0, mostShown)" :key="entry.id">
            <TuneRow :entry="entry" @duplicate="duplicate(entry)" @remove="remove(entry)" />
          </li>
          <li v-if="shown.length > mostShown" class="quiet none">
            And {{ shown.length - mostShown }} more: search for one.
          </li>
          <li v-if="!shown.length" class="quiet none">No tune is found by that.</li>
        </ul>
        <details v-if="gone.length">
          <summary class="quiet">Deleted tunes ({{ gone.length }})</summary>
          <ul>
            <li v-for="entry in gone" :key="entry.id">
              <span class="name">{{ entry.title }}</span>
              <button
                type="button"
                class="chip"
                :aria-label="`Restore ${entry.title}`"
                @click="restore(entry)"
              >
                Restore
              </button>
            </li>
          </ul>
        </details>
      </div>
      <FirstVisit v-else />
      <div class="bench fresh">
        <div class="ways">
          <h2>{{ tune.list.length ? 'A new tune' : 'Start with a tune' }}</h2>
          <button type="button" class="chip" :aria-pressed="way === 'scheme'" @click="way = 'scheme'">
            From a scheme
          </button>
          <button type="button" class="chip" :aria-pressed="way === 'open'" @click="way = 'open'">
            Paste or open a file
          </button>
        </div>
        <NewTune v-if="way === 'scheme'" />
        <ImportTune v-else />
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
  gap: 1.4rem;
  align-items: flex-start;
  flex-wrap: wrap;
}
.bench {
  padding: 1.1rem 1.3rem;
}
.tunes {
  flex: 1 1 36rem;
  min-width: 0;
}
.tunes > ul {
  max-height: var(--panel-most, calc(100vh - 26rem));
  min-height: var(--panel-least, 12rem);
  overflow-y: auto;
}
.fresh {
  flex: 0 1 28rem;
}
.head {
  flex-wrap: wrap;
  align-items: center;
  row-gap: 0.4rem;
}
.head h2 {
  flex: 1 1 6rem;
}
.search {
  width: 11rem;
  padding: 0.25rem 0.7rem;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-bottom: 0.9rem;
}
.ways h2 {
  width: 100%;
}
li {
  display: flex;
  align-items: center;
  gap: 4px;
}
.name {
  display: flex;
  flex-direction: column;
  min-width: 0;
  overflow-wrap: anywhere;
  flex: 1;
}
.none {
  padding: 0.7rem;
}
details {
  margin-top: 0.6rem;
}
summary {
  cursor: pointer;
}
.problem {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  padding: 0.45rem 0.8rem;
  margin-bottom: 0.8rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.broken {
  display: block;
}
</style>
