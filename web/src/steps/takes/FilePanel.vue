<script setup lang="ts">
import { ref } from 'vue'
import { answer, client, sendPiece } from '../../api/client'
import { useTune } from '../../document/tune'
import { useTakesQuery } from './address'
import type { TakesWork } from './work'

/** Opens a WAV, FLAC or MIDI file as a take. */
const props = defineProps<{ work: TakesWork }>()
const tune = useTune()
const query = useTakesQuery()
const start = ref(0)
const says = ref('')
const busy = ref(false)
/** How much of a file goes at a time: well below what a request may hold. */
const pieceSize = 900_000

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
      for (let at = 0; at < file.size; at += pieceSize) {
        says.value = `${Math.round((100 * at) / file.size)} % read`
        await sendPiece(id, at, file.slice(at, at + pieceSize))
      }
      says.value = 'Listening to it.'
      const kept = await answer(
        client.POST('/api/recordings/{id}/take', {
          params: { path: { id } },
          body: { chartId: tune.id, take },
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
    <label class="primary"
      >Open a WAV, FLAC or MIDI file
      <input type="file" accept=".wav,.flac,.mid,.midi" :disabled="busy" @change="read" />
    </label>
    <label
      >bar 1 begins at second
      <input v-model.number="start" type="number" step="0.01" min="-60" max="3600" />
    </label>
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
}
</style>
