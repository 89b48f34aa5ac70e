<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, shallowRef } from 'vue'
import { answer, client, sendBundlePiece, type BundlePreview } from '../../api/client'
import { sendFile } from '../../sound/pieces'
import { begunAnew, counted, named, sized } from './replaced'

/** Reads a file of another machine or of a friend: what it would bring is shown first. */
const share = ref<number>()
const id = ref('')
const preview = shallowRef<BundlePreview>()
const problem = ref('')
const busy = ref(false)
const replace = ref(false)
const differing = ref<'mine' | 'theirs' | 'both'>('mine')
const answers = [
  ['mine', 'keep mine'],
  ['theirs', 'take theirs'],
  ['both', 'keep both'],
] as const

const differs = computed(() => preview.value?.items.some((item) => item.state === 'differs') ?? false)
const brings = computed(() => {
  const bundle = preview.value
  if (!bundle) return []
  return bundle.counts.map(({ kind, ...count }) => {
    const [, many] = named(kind)
    return { what: many, ...count }
  })
})
const nothing = computed(() => {
  const bundle = preview.value
  return bundle && !bundle.items.length && !bundle.answers && !bundle.entries && !bundle.settings.length
})

async function attempt(work: () => Promise<unknown>) {
  busy.value = true
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  } finally {
    busy.value = false
    share.value = undefined
  }
}
async function forget() {
  if (id.value) await client.DELETE('/api/bundles/{id}', { params: { path: { id: id.value } } })
  id.value = ''
  preview.value = undefined
}
const choose = (event: Event) =>
  attempt(async () => {
    const field = event.target as HTMLInputElement
    const file = field.files?.[0]
    if (!file) return
    await forget()
    id.value = (await answer(client.POST('/api/bundles'))).id
    await sendFile(id.value, file, (gone) => (share.value = gone), sendBundlePiece)
    field.value = ''
    preview.value = await answer(client.GET('/api/bundles/{id}', { params: { path: { id: id.value } } }))
    replace.value = false
  })
const read = () =>
  attempt(async () => {
    const done = await answer(
      client.POST('/api/bundles/{id}/import', {
        params: { path: { id: id.value } },
        body: { replace: replace.value, differing: differing.value },
      }),
    )
    const parts = [
      done.new && `${done.new} new`,
      done.replaced && `${done.replaced} replaced`,
      done.keptBoth && `${done.keptBoth} kept beside yours`,
      done.keptMine && `yours kept ${done.keptMine} times`,
      done.same && `${done.same} the same`,
      done.answers && counted(done.answers, 'answer to a card', 'answers to cards'),
      done.entries && counted(done.entries, 'entry of the log', 'entries of the log'),
    ].filter(Boolean)
    begunAnew({ says: `The file is read: ${parts.join(', ') || 'nothing new'}.`, before: done.before.name })
  })
</script>

<template>
  <div class="bench" role="region" aria-label="Bring it in">
    <h2>Bring it in</h2>
    <p class="quiet">
      A file that was saved here, on another machine or by a friend. You see first what it brings.
    </p>
    <label class="chip open">
      Choose a file
      <input type="file" accept=".zip,application/zip" aria-label="Choose a file" @change="choose" />
    </label>
    <p v-if="share !== undefined" role="status">{{ Math.round(100 * share) }} % has come</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <template v-if="preview">
      <p>
        <strong>{{ preview.about }}</strong>, saved
        {{ new Date(preview.made).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' }) }}
      </p>
      <table>
        <thead>
          <tr>
            <th scope="col"></th>
            <th scope="col">new</th>
            <th scope="col">differ</th>
            <th scope="col">the same</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in brings" :key="row.what">
            <th scope="row">{{ row.what }}</th>
            <td>{{ row.new || '–' }}</td>
            <td>{{ row.differs || '–' }}</td>
            <td>{{ row.same || '–' }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="preview.answers || preview.entries" class="quiet">
        {{ counted(preview.answers, 'answer to a card', 'answers to cards') }} and
        {{ counted(preview.entries, 'entry of the log', 'entries of the log') }} are new
      </p>
      <p v-if="preview.sounds" class="quiet">
        {{ counted(preview.sounds, 'recording') }}, {{ sized(preview.soundBytes) }}
      </p>
      <p v-for="remark in preview.remarks" :key="remark" class="quiet">{{ remark }}</p>
      <details v-if="preview.items.length">
        <summary class="quiet">Which ones</summary>
        <ul class="which">
          <li v-for="(item, index) in preview.items" :key="index">
            {{ named(item.kind)[0] }} <strong>{{ item.name }}</strong> {{ item.state }}
          </li>
        </ul>
      </details>
      <div v-if="preview.whole" class="choices">
        <button type="button" class="chip" :aria-pressed="!replace" @click="replace = false">
          add to what is here
        </button>
        <button type="button" class="chip" :aria-pressed="replace" @click="replace = true">
          replace everything here
        </button>
      </div>
      <div
        v-if="!replace && (differs || preview.settings.length)"
        class="choices"
        aria-label="What differs"
        role="group"
      >
        <span class="quiet">Where both differ</span>
        <button
          v-for="[value, text] in answers"
          :key="value"
          type="button"
          class="chip"
          :aria-pressed="differing === value"
          @click="differing = value"
        >
          {{ text }}
        </button>
      </div>
      <p v-if="nothing && !replace" role="status">Everything in it is here already.</p>
      <div class="choices">
        <Button
          :label="replace ? 'Replace everything' : 'Read it'"
          :loading="busy"
          :disabled="nothing && !replace"
          @click="read"
        />
        <button type="button" class="chip" @click="attempt(forget)">Leave it</button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.bench {
  padding: 1.1rem 1.3rem;
}
.open {
  position: relative;
  display: inline-block;
  overflow: hidden;
  margin: 0.7rem 0 0.2rem;
}
.open input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.open:focus-within {
  outline: 2px solid var(--now);
}
table {
  border-collapse: collapse;
  margin: 0.5rem 0;
}
th[scope='row'] {
  text-align: left;
  font-weight: 500;
  padding-right: 1.2rem;
}
thead th {
  font-weight: 500;
  color: var(--stone);
  padding: 0 0.6rem;
}
td {
  text-align: center;
  padding: 0.1rem 0.6rem;
}
.which {
  max-height: 9rem;
  overflow-y: auto;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 0.7rem 0;
}
.problem {
  padding: 0.45rem 0;
}
</style>
