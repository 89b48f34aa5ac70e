<script setup lang="ts">
import { computed, watch } from 'vue'
import { useBand } from '../../document/band'
import { useSolos } from '../../document/solos'
import { useTune } from '../../document/tune'
import ChipRow from '../../controls/ChipRow.vue'
import PillSelect from '../../controls/PillSelect.vue'

/** How the band plays: its style, its chords' sound, how it begins, and what is played over it. */
defineProps<{ style: string; says: string | undefined }>()
const band = useBand()
const tune = useTune()
const solos = useSolos()

watch(
  () => tune.id,
  (id) => id && void solos.list(id).catch(tune.tell),
  { immediate: true },
)
const styles = computed(() => tune.choices?.styles[tune.chart?.meter ?? ''] ?? [])
const lines = computed<{ value: string; text: string; ownName?: boolean }[]>(() => [
  { value: '0', text: 'no line' },
  ...solos.entries
    .filter((entry) => !entry.damaged)
    .map((entry) => ({ value: String(entry.id), text: entry.name, ownName: true })),
])
const line = computed(() => {
  const id = String(band.band.line ?? 0)
  return lines.value.some((one) => one.value === id) ? id : '0'
})
</script>

<template>
  <div class="band">
    <ChipRow
      label="Style"
      says="style"
      :options="styles"
      :chosen="style"
      @choose="(name) => band.edit(`style: ${name}`, { style: name })"
    >
      <button
        v-if="band.band.style"
        type="button"
        class="chip"
        title="The style of the tune's meter, feel and tempo"
        @click="band.edit('the tune’s own style', { style: undefined })"
      >
        the tune’s own
      </button>
    </ChipRow>
    <p v-if="says" class="fault" role="alert">{{ says }}.</p>
    <ChipRow
      label="What plays the chords"
      says="chords"
      :options="tune.choices?.sounds ?? []"
      :chosen="band.band.sound || (tune.choices?.sounds[0] ?? '')"
      @choose="(sound) => band.edit(`chords on ${sound}`, { sound })"
    />
    <ChipRow
      label="What comes before the first bar"
      says="begins"
      :options="tune.choices?.intros ?? []"
      :chosen="band.band.intro || (tune.choices?.intros[0] ?? '')"
      @choose="(intro) => band.edit(`begins with ${intro}`, { intro })"
    >
      <button
        type="button"
        class="chip"
        :aria-pressed="Boolean(band.band.stopTime)"
        title="The band strikes the first four bars of a chorus, and rests between"
        @click="band.edit('stop-time', { stopTime: !band.band.stopTime })"
      >
        stop-time
      </button>
      <span class="what quiet line">over it</span>
      <PillSelect
        label="What is played over the band"
        :chosen="line"
        :options="lines"
        @choose="(id) => band.edit('what is played over the band', { line: Number(id) || undefined })"
      />
    </ChipRow>
  </div>
</template>

<style scoped>
.line {
  margin-left: 1rem;
}
.fault {
  color: var(--next);
  margin: 0 0 6px 3.8rem;
}
</style>
