<script setup lang="ts">
import { computed, ref } from 'vue'
import { useBand } from '../../document/band'
import { useTune } from '../../document/tune'
import ChipRow from '../../controls/ChipRow.vue'
import { parts, type Part } from '../../sound/mixer'
import { useExporting } from '../../sound/export'

/** What is played, taken away as a file: the routine or some choruses, all parts or some. */
const props = defineProps<{ chorusSeconds: number }>()
const band = useBand()
const tune = useTune()
const exporting = useExporting()

const theRoutine = computed(() => band.chosen?.routine.name ?? '')
const counts = [1, 2, 3, 4, 6, 8]
const lengths = computed(() => [
  ...(band.chosen?.waits ? [] : [theRoutine.value]),
  ...counts.map((n) => `${n} ${n === 1 ? 'chorus' : 'choruses'}`),
])
const chosen = ref('')
const length = computed(() =>
  lengths.value.includes(chosen.value) ? chosen.value : (lengths.value[band.chosen?.waits ? 2 : 0] ?? ''),
)
const choruses = computed(() =>
  length.value === theRoutine.value ? undefined : Number.parseInt(length.value),
)
const heard = ref<Part[]>(parts.filter((part) => part !== 'click'))
function toggle(part: Part) {
  heard.value = heard.value.includes(part)
    ? heard.value.filter((one) => one !== part)
    : parts.filter((one) => one === part || heard.value.includes(one))
}
const ending = ref(true)
const wanted = computed(() => ({ choruses: choruses.value, parts: heard.value, ending: ending.value }))
const name = computed(() => `${tune.chart?.title}, ${length.value}`)
/** Seconds of what is wanted, as far as they are known before. */
const seconds = computed(() =>
  choruses.value ? choruses.value * props.chorusSeconds : (band.chosen?.seconds ?? 0),
)
const share = computed(() => {
  const { seconds: done, of } = exporting.rendered ?? { seconds: 0, of: 0 }
  return of ? Math.min(Math.round((done / of) * 100), 100) : 0
})
</script>

<template>
  <div>
    <ChipRow
      label="How much"
      says="play"
      :options="lengths"
      :chosen="length"
      @choose="(one) => (chosen = one)"
    />
    <div class="choices" role="group" aria-label="Parts">
      <span class="what quiet">parts</span>
      <button
        v-for="part in parts"
        :key="part"
        type="button"
        class="chip"
        :aria-pressed="heard.includes(part)"
        @click="toggle(part)"
      >
        {{ part }}
      </button>
      <button type="button" class="chip end" :aria-pressed="ending" @click="ending = !ending">
        with an ending
      </button>
    </div>
    <p v-if="exporting.rendered" class="acts" role="status">
      <progress :value="share" max="100" aria-label="Rendered" />
      <span class="tabular">{{ share }} %</span>
      <button type="button" class="chip" @click="exporting.stop()">Stop rendering</button>
    </p>
    <p v-else class="acts">
      <button
        type="button"
        class="primary"
        :disabled="heard.length === 0"
        @click="exporting.tuneAsSound(name, wanted, seconds)"
      >
        Save as WAV
      </button>
      <button
        type="button"
        class="chip"
        :disabled="heard.length === 0"
        @click="exporting.tuneAsMidi(name, wanted)"
      >
        Save as MIDI
      </button>
      <span v-if="heard.length === 0" class="quiet">Choose a part that is to be heard.</span>
      <span v-else class="quiet">Rendered on this machine, faster than it plays.</span>
    </p>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  margin-top: 0.5rem;
}
.end {
  margin-left: 1rem;
}
progress {
  width: 240px;
  height: 10px;
  accent-color: var(--now);
}
</style>
