<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { answer, client, type KeptLogEntry, type LogEntry, type LogImport } from '../../api/client'
import { signs } from '../../controls/spelling'
import { localTime } from '../../document/clock'
import { pendingLog } from '../../document/pendinglog'

/** The practice log: what was practised, to be corrected, added to, taken away and read again. */
const emit = defineEmits<{ changed: [] }>()
const entries = shallowRef<KeptLogEntry[]>([])
const problem = ref('')
const read = shallowRef<LogImport>()
const removed = shallowRef<KeptLogEntry>()
const editing = ref<number>()
const draft = ref<LogEntry>(fresh())
/** So many entries are drawn at once. */
const shown = ref(40)

function fresh(): LogEntry {
  return { began: localTime().slice(0, 16), seconds: 600, kind: 'free' }
}
const kinds = ['warm-up', 'cards', 'lick', 'exercise', 'tune', 'free', 'phrase', 'other'] as const

async function attempt(work: () => Promise<unknown>) {
  try {
    problem.value = ''
    await work()
    entries.value = await answer(client.GET('/api/practice/log'))
    emit('changed')
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
// What was noted down a moment ago is sent first, so that the list has it.
onMounted(() => attempt(() => pendingLog.flush()))

/** An entry as it is sent: with the offset of this browser, and nothing that is computed. */
function withZone(entry: LogEntry): LogEntry {
  const { seconds, kind, item, itemId, key, position, tempo, goal, right, of, went, note } = entry
  const began = localTime(new Date(entry.began))
  return { began, seconds, kind, item, itemId, key, position, tempo, goal, right, of, went, note }
}
const add = () =>
  attempt(async () => {
    await answer(client.POST('/api/practice/log', { body: withZone(draft.value) }))
    draft.value = fresh()
    editing.value = undefined
  })
const correct = (entry: KeptLogEntry) =>
  attempt(async () => {
    const path = { id: entry.id }
    await answer(client.PUT('/api/practice/log/{id}', { params: { path }, body: withZone(draft.value) }))
    editing.value = undefined
    draft.value = fresh()
  })
const remove = (entry: KeptLogEntry) =>
  attempt(async () => {
    await answer(client.DELETE('/api/practice/log/{id}', { params: { path: { id: entry.id } } }))
    removed.value = entry
  })
const restore = () =>
  attempt(async () => {
    if (!removed.value) return
    const path = { id: removed.value.id }
    await answer(client.POST('/api/practice/log/{id}/restore', { params: { path } }))
    removed.value = undefined
  })
function edit(entry: KeptLogEntry) {
  editing.value = entry.id
  draft.value = { ...entry, began: entry.began.slice(0, 16) }
}
async function openFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const text = await file.text()
  await attempt(async () => {
    read.value = await answer(client.POST('/api/practice/log/csv', { body: { text } }))
  })
}

const day = (began: string) => began.slice(0, 10)
const minutes = (seconds: number) => Math.max(Math.round(seconds / 60), 1)
const facts = (e: KeptLogEntry) =>
  [
    e.key && signs(e.key),
    e.position,
    e.tempo ? `${e.tempo}${e.goal ? ` of ${e.goal}` : ''} a minute` : '',
    e.of ? `${e.right ?? 0} of ${e.of} right` : '',
    e.went,
    e.note,
  ]
    .filter(Boolean)
    .join(' · ')
const adding = computed(() => editing.value === 0)
</script>

<template>
  <section class="log">
    <div class="head">
      <span class="quiet"
        >It writes itself from what is practised; what is corrected is kept as it was, too.</span
      >
      <span class="acts">
        <button type="button" class="chip" @click="((editing = 0), (draft = fresh()))">Add an entry</button>
        <a class="chip" href="/api/practice/log/csv" download="practice log.csv">CSV</a>
        <label class="chip file"
          >Read a CSV<input type="file" accept=".csv,text/csv" aria-label="Read a CSV" @change="openFile"
        /></label>
      </span>
    </div>
    <p v-if="problem" class="warn" role="alert">{{ problem }}</p>
    <div v-if="read" class="read" role="status">
      {{ read.text }}.
      <ul v-if="read.faults.length">
        <li v-for="fault in read.faults.slice(0, 20)" :key="fault.line + (fault.column ?? '')">
          line {{ fault.line }}: {{ fault.text }}
        </li>
      </ul>
      <button type="button" class="chip" @click="read = undefined">Close</button>
    </div>
    <p v-if="removed" class="read" role="status">
      An entry is taken out. <button type="button" class="chip" @click="restore">Bring it back</button>
    </p>
    <form
      v-if="editing !== undefined"
      class="edit"
      @submit.prevent="adding ? add() : correct(entries.find((e) => e.id === editing)!)"
    >
      <label>when <input v-model="draft.began" type="datetime-local" required /></label>
      <label
        >minutes
        <input
          type="number"
          min="1"
          max="600"
          :value="minutes(draft.seconds)"
          @input="draft.seconds = 60 * Number(($event.target as HTMLInputElement).value)"
      /></label>
      <label
        >what
        <select v-model="draft.kind">
          <option v-for="kind in kinds" :key="kind">{{ kind }}</option>
        </select></label
      >
      <label>name <input v-model="draft.item" maxlength="120" /></label>
      <label>tempo <input v-model.number="draft.tempo" type="number" min="0" max="400" /></label>
      <label>note <input v-model="draft.note" maxlength="2000" /></label>
      <button type="submit" class="primary">{{ adding ? 'Add' : 'Correct' }}</button>
      <button type="button" class="chip" @click="editing = undefined">Cancel</button>
    </form>
    <table v-if="entries.length">
      <thead class="quiet">
        <tr>
          <th scope="col">day</th>
          <th scope="col">min</th>
          <th scope="col">what</th>
          <th scope="col">how it went</th>
          <th scope="col"><span class="quiet">change</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="e in entries.slice(0, shown)" :key="e.id">
          <td class="tabular">{{ e.damaged ? '–' : day(e.began) }}</td>
          <td class="tabular">{{ minutes(e.seconds) }}</td>
          <td>
            <b>{{ e.item || e.kind }}</b> <span v-if="e.item" class="quiet">{{ e.kind }}</span>
          </td>
          <td>{{ e.damaged ? `damaged: ${e.damaged}` : facts(e) }}</td>
          <td>
            <span class="acts">
              <button
                type="button"
                class="chip"
                :aria-label="`Correct ${e.item || e.kind} of ${day(e.began)}`"
                @click="edit(e)"
              >
                correct
              </button>
              <button
                type="button"
                class="chip"
                :aria-label="`Take out ${e.item || e.kind} of ${day(e.began)}`"
                @click="remove(e)"
              >
                ×
              </button>
            </span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="quiet none">Nothing is noted yet: practise, and the log writes itself.</p>
    <button v-if="entries.length > shown" type="button" class="chip" @click="shown += 100">
      {{ entries.length - shown }} more
    </button>
  </section>
</template>

<style scoped>
.log {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}
.head,
.edit,
.acts {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  flex-wrap: wrap;
}
.head .acts {
  margin-left: auto;
}
td .acts {
  justify-content: flex-end;
}
a.chip {
  color: inherit;
  text-decoration: none;
}
.file input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
.file:focus-within {
  outline: 2px solid var(--now);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
}
td {
  padding: 0.25rem 0.6rem 0.25rem 0;
  border-top: 1px solid var(--line);
}
.edit input,
.edit select {
  padding: 0.2rem 0.5rem;
}
.edit input[type='number'] {
  width: 4.5rem;
}
.read {
  background: var(--next-tint);
  border-radius: 8px;
  padding: 0.5rem 0.8rem;
}
.warn {
  color: var(--next);
}
.none {
  padding: 1.5rem 0;
}
</style>
