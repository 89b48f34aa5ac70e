<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ref, shallowRef, watch } from 'vue'
import type { SoloRevision } from '../api/client'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import type { SoloWork } from './work'

/** The solos over the tune: the one that is open, its versions, and its files. */
const props = defineProps<{ work: SoloWork }>()
const tune = useTune()
const { entries, solo, id, version, gone } = props.work
const versions = shallowRef<SoloRevision[]>([])
watch(
  () => [id.value, version.value] as const,
  async ([now]) => {
    try {
      versions.value = now ? await props.work.revisions() : []
    } catch (error) {
      tune.tell(error)
    }
  },
  { immediate: true },
)
const name = ref('')
watch(
  () => solo.value?.name,
  (now) => (name.value = now ?? ''),
  { immediate: true },
)
const when = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})
const notes = (s: SoloRevision) =>
  s.solo.choruses.reduce((sum, c) => sum + c.blocks.reduce((n, b) => n + (b.notes?.length ?? 0), 0), 0)
const times = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : what === 'chorus' ? 'es' : 's'}`
</script>

<template>
  <div class="keep">
    <section aria-label="Solos of the tune">
      <h2>Over {{ tune.chart?.title }}</h2>
      <ul>
        <li v-for="e in entries" :key="e.id">
          <button
            type="button"
            class="entry"
            :aria-current="e.id === id ? 'true' : undefined"
            @click="work.open(e.id)"
          >
            {{ e.id === id ? solo?.name : e.name }}
          </button>
          <span class="quiet">{{ times(e.choruses, 'chorus') }}</span>
        </li>
      </ul>
      <div class="choices">
        <button type="button" class="chip" @click="work.begin()">Another solo</button>
        <button type="button" class="chip" :disabled="!id" @click="work.duplicate()">Duplicate</button>
        <button type="button" class="chip" :disabled="!id" @click="work.remove()">Delete</button>
      </div>
      <p v-if="gone">
        {{ gone.name }} is deleted.
        <button type="button" class="chip" @click="work.bringBack()">Bring it back</button>
      </p>
    </section>
    <section v-if="solo" aria-label="This solo">
      <h2>This solo</h2>
      <label>
        Name
        <InputText v-model="name" maxlength="60" @change="work.rename(name)" />
      </label>
      <p class="quiet">Take it away</p>
      <div class="choices">
        <button
          v-for="f in tune.choices?.soloFormats"
          :key="f.name"
          type="button"
          class="chip"
          @click="work.takeAway(f.name)"
        >
          {{ f.title }}
        </button>
      </div>
      <p class="quiet">
        {{ times(solo.choruses.length, 'chorus') }}; what is muted is left out, each chorus as far as it is
        grown.
      </p>
    </section>
    <section v-if="solo" aria-label="Versions of the solo">
      <h2>Versions</h2>
      <ol>
        <li v-for="v in versions" :key="v.version">
          <span>
            <b>{{ v.version }}</b> <span class="quiet">{{ when.format(new Date(v.saved)) }}</span>
            {{ signs(v.solo.name) }}, {{ times(v.solo.choruses.length, 'chorus') }},
            {{ times(notes(v), 'note') }}
          </span>
          <span v-if="v.current" class="quiet">now</span>
          <button
            v-else
            type="button"
            class="chip"
            :aria-label="`Restore version ${v.version}`"
            @click="work.restore(v.version)"
          >
            Restore
          </button>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.keep {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 1.4rem;
  height: 290px;
  font-size: 0.93rem;
}
section {
  overflow-y: auto;
}
li {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 0.6rem;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
.entry {
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  text-align: left;
}
.entry[aria-current='true'] {
  font-weight: 700;
  color: var(--now);
}
.choices {
  margin-top: 8px;
}
label {
  display: block;
  margin: 4px 0 10px;
  color: var(--stone);
}
label :deep(.p-inputtext) {
  width: 100%;
}
</style>
