<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import { useAnswer } from '../../api/ask'
import VersionList from '../../controls/VersionList.vue'
import { useSolos } from '../../document/solos'
import { useTune } from '../../document/tune'
import type { SoloKeeping } from './keeping'
import type { SoloWork } from './work'

/** The solos over the tune: the one that is open, its versions, and its files. */
const props = defineProps<{ work: SoloWork; keeping: SoloKeeping }>()
const tune = useTune()
const solos = useSolos()
const { solo, id, document } = props.work
const { gone } = props.keeping
const named = ref(0)
const { answer: versions } = useAnswer(
  () => (id.value ? { id: id.value, version: document.value?.version.value, named: named.value } : undefined),
  ({ id: of }, signal) => props.keeping.revisions(of, signal),
)
async function label(version: number, text: string) {
  await props.keeping.label(version, text)
  named.value++
}
const name = ref('')
watch(
  () => solo.value?.name,
  (now) => (name.value = now ?? ''),
  { immediate: true },
)
</script>

<template>
  <div class="keep">
    <section aria-label="Solos of the tune">
      <h2>Over {{ tune.chart?.title }}</h2>
      <ul>
        <li v-for="e in solos.entries" :key="e.id">
          <template v-if="e.damaged">
            <span>
              {{ e.name }} <span class="quiet">cannot be read: {{ e.damaged }}</span>
            </span>
            <a :href="`/api/solos/${e.id}/text`" download>its text</a>
            <button type="button" class="chip" @click="keeping.remove(e)">Delete</button>
          </template>
          <template v-else>
            <button
              type="button"
              class="entry"
              :aria-current="e.id === id ? 'true' : undefined"
              @click="keeping.open(e.id)"
            >
              {{ e.id === id ? solo?.name : e.name }}
            </button>
            <span class="quiet">{{ e.text }}</span>
          </template>
        </li>
      </ul>
      <div class="choices">
        <button type="button" class="chip" @click="work.begin()">Another solo</button>
        <button type="button" class="chip" :disabled="!id" @click="keeping.duplicate()">Duplicate</button>
        <button type="button" class="chip" :disabled="!id" @click="keeping.remove()">Delete</button>
      </div>
      <p v-if="gone">
        {{ gone.name }} is deleted.
        <button type="button" class="chip" @click="keeping.undelete()">Restore it</button>
      </p>
    </section>
    <section v-if="solo" aria-label="This solo">
      <h2>This solo</h2>
      <label>
        Name
        <InputText v-model="name" maxlength="60" @change="work.rename(name)" />
      </label>
      <p class="quiet">Export</p>
      <div class="choices">
        <button
          v-for="f in tune.choices?.soloFormats"
          :key="f.name"
          type="button"
          class="chip"
          @click="keeping.takeAway(f.name)"
        >
          {{ f.title }}
        </button>
      </div>
      <p class="quiet">What is muted is left out, each chorus as far as it is grown.</p>
    </section>
    <section v-if="solo" aria-label="Versions of the solo">
      <h2>Versions</h2>
      <VersionList :versions="versions ?? []" @restore="keeping.restore" @label="label" />
    </section>
  </div>
</template>

<style scoped>
.keep {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 1.4rem;
  height: var(--panel, 19.33rem);
  font-size: 0.93rem;
}
section {
  overflow-y: auto;
}
ul li {
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
@container main (max-width: 52rem) {
  .keep {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
