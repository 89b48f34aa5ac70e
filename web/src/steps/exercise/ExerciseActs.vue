<script setup lang="ts">
import { computed } from 'vue'
import { useView } from '../../address/view'
import { signs } from '../../controls/spelling'
import type { Ramp } from '../../sound/lines'
import { usePlayer } from '../../sound/player'
import type { ExerciseQuery } from './address'
import type { ExerciseKeeping } from './keeping'
import type { ExerciseWork } from './work'

/** What is done with an exercise: heard, kept, played clean; and what is to be said of it. */
const props = defineProps<{
  work: ExerciseWork
  query: ExerciseQuery
  keeping: ExerciseKeeping
  ramp: Ramp
  /** The tempo that was noted as clean last; 0 for none. */
  clean: number
}>()
defineEmits<{ clean: [] }>()
const view = useView()
const player = usePlayer()
const written = computed(() => props.work.written.value)

/** Takes the placing that is within the player's span. */
function takeEasier() {
  const easier = written.value?.easier
  if (!easier) return
  void props.work.edit('an easier placing', (now) => ({ ...easier.exercise, name: now.name }))
  void view.set({ pos: easier.position })
}
</script>

<template>
  <div class="acts">
    <button type="button" class="primary" :disabled="!written" @click="player.toggle()">
      {{ player.silent ? 'Hear it' : 'Stop' }}
    </button>
    <button
      type="button"
      class="chip"
      :aria-pressed="query.alone.value"
      title="Without the band, with its click (a)"
      @click="query.set({ alone: !query.alone.value })"
    >
      alone
    </button>
    <button
      type="button"
      class="chip"
      :aria-pressed="query.ramp.value"
      :title="`Round and round, from ${ramp.from} % of the tempo up to ${ramp.to}, ${ramp.by} faster each time`"
      @click="query.set({ ramp: !query.ramp.value })"
    >
      ramp
    </button>
    <button v-if="!query.id.value" type="button" class="chip" @click="keeping.keep()">keep it</button>
    <button
      v-if="!player.silent || clean"
      type="button"
      class="chip"
      title="Note down in the log that it was clean at this tempo (c)"
      @click="$emit('clean')"
    >
      {{ clean ? `clean at ${clean}` : `clean? now ${player.tempo}` }}
    </button>
    <span v-if="written?.caution" class="caution">
      {{ written.caution }}
      <button v-if="written.easier" type="button" class="chip" @click="takeEasier">
        easier: {{ written.easier.text }}
      </button>
    </span>
    <span v-else class="quiet">{{ signs(written?.concessions.join('. ') ?? '') }}</span>
    <span role="status" class="quiet">
      {{ keeping.notice.value }}
      <button v-if="keeping.gone.value" type="button" class="chip" @click="keeping.bringBack()">
        Bring {{ keeping.gone.value.exercise.name }} back
      </button>
    </span>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
}
.caution {
  color: var(--next);
  font-size: 0.92rem;
}
</style>
