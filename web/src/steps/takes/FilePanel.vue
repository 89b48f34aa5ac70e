<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import { answer, client, type KeptTake } from '../../api/client'
import { useTune } from '../../document/tune'
import { sendFile } from '../../sound/pieces'
import { useTakesQuery } from './address'
import type { TakesWork } from './work'

/** Opens a WAV, FLAC or MIDI file as a take. */
const props = defineProps<{ work: TakesWork }>()
const tune = useTune()
const query = useTakesQuery()
/** Empty where bar 1 is to be found. */
const start = ref<number | string>('')
const says = ref('')
const busy = ref(false)
/** Where bar 1 of the chosen take lies, and where it is put. */
const { chosen } = props.work
const kept = shallowRef<KeptTake>()
const moved = ref<number | string>('')
watch(
  () => chosen.value && `${chosen.value.id} ${chosen.value.version}`,
  async () => {
    const id = chosen.value?.id
    if (!id || chosen.value?.damaged) return
    kept.value = await answer(client.GET('/api/takes/{id}', { params: { path: { id } } }))
    moved.value = Math.round(kept.value.start * 100) / 100
  },
  { immediate: true },
)
async function move() {
  const take = kept.value
  if (!take || typeof moved.value !== 'number') return
  try {
    const { id, version } = take
    await answer(
      client.PUT('/api/takes/{id}', {
        params: { path: { id } },
        body: { ...take, version, start: moved.value },
      }),
    )
    await props.work.list()
    says.value = `Bar 1 begins at ${moved.value} s.`
  } catch (error) {
    says.value = error instanceof Error ? error.message : String(error)
  }
}

async function read(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (!file) return
  busy.value = true
  says.value = ''
  try {
    const take = {
      ...props.work.emptyDraft('file'),
      name: file.name.slice(0, 60),
      start: Number(start.value) || 0,
    }
    const { id } = await answer(
      client.POST('/api/recordings', { body: { kind: 'file', chartId: tune.id, take } }),
    )
    try {
      await sendFile(id, file, (share) => (says.value = `${Math.round(100 * share)} % read`))
      says.value = 'Listening to it.'
      const kept = await answer(
        client.POST('/api/recordings/{id}/take', {
          params: { path: { id } },
          body: { chartId: tune.id, take, findStart: start.value === '' },
        }),
      )
      says.value = kept.remarks?.length ? `${kept.remarks.join('. ')}.` : ''
      await props.work.list()
      await query.set({ take: kept.id, bench: 'verdict' })
    } catch (error) {
      await client.DELETE('/api/recordings/{id}', { params: { path: { id } } })
      throw error
    }
  } catch (error) {
    says.value = error instanceof Error ? error.message : String(error)
  } finally {
    busy.value = false
    field.value = ''
  }
}
</script>

<template>
  <div class="file">
    <label class="primary open"
      >Open a WAV, FLAC or MIDI file
      <input type="file" accept=".wav,.flac,.mid,.midi" :disabled="busy" @change="read" />
    </label>
    <label
      >bar 1 begins at second
      <input v-model.number="start" type="number" step="0.01" min="-60" max="3600" placeholder="find it" />
    </label>
    <span v-if="chosen" class="acts">
      <label
        >in {{ chosen.name }} it begins at
        <input v-model.number="moved" type="number" step="0.01" min="-60" max="3600" />
      </label>
      <button type="button" class="chip" :disabled="typeof moved !== 'number'" @click="move">set it</button>
    </span>
    <p role="status">{{ says }}</p>
  </div>
</template>

<style scoped>
.file {
  display: flex;
  flex-wrap: wrap;
  gap: 22px;
  align-items: center;
}
input[type='number'] {
  width: 6em;
  padding: 3px 8px;
}
.open {
  position: relative;
  display: inline-flex;
  align-items: center;
  white-space: normal;
  cursor: pointer;
}
.open input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.open:focus-within {
  outline: 2px solid var(--ink);
  outline-offset: 2px;
}
.acts {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}
</style>
