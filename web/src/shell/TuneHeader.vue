<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { usePlayer } from '../sound/player'
import { useKeys } from '../tune/keys'
import { useTune } from '../tune/tune'
import { useUndoing } from '../tune/undoing'
import { useView } from '../tune/view'
import { named } from './options'
import PillSelect from './PillSelect.vue'

const tune = useTune()
const view = useView()
const player = usePlayer()
const router = useRouter()
const undoing = useUndoing()

const saved = computed(
  () =>
    ({ saved: 'saved', saving: 'saving…', elsewhere: 'not saved', failed: 'not saved' })[undoing.saveState],
)
const positions = computed(() =>
  (tune.map?.positions ?? []).map((p) => ({
    value: p.id,
    text: `${p.says} ${p.core}–${p.coreEnd}`.replace('form ', 'form, '),
  })),
)
/** Choosing a key here transposes; the mode stays. */
const keys = computed(() =>
  (tune.choices?.tonics[tune.chart?.key.mode ?? ''] ?? []).map((tonic) => ({
    value: tonic,
    text: tune.chart?.key.mode === 'dominant' ? tonic : `${tonic} ${tune.chart?.key.mode}`,
  })),
)
const imagines = computed(() => tune.read?.bars.some((bar) => bar.imagined.length))
const imagine = () => tune.edit({ set: { imagining: !tune.chart?.imagining } })
const box = computed(() => tune.choices?.boxes.find((kind) => tune.read?.boxName.endsWith(kind)))

function setTempo(tempo: number | null) {
  if (tempo && tempo !== tune.chart?.tempo) void tune.edit({ set: { tempo } })
}

useKeys([
  {
    key: 'i',
    says: 'imagined chords on and off',
    run: () => {
      if (imagines.value) void imagine()
    },
  },
])
</script>

<template>
  <header v-if="tune.chart">
    <h1 :title="tune.chart.title">
      <button
        type="button"
        class="title"
        :aria-label="`${tune.chart.title}: all tunes`"
        @click="router.push('/')"
      >
        {{ tune.chart.title }}
      </button>
    </h1>
    <PillSelect
      label="Key"
      :chosen="tune.chart.key.tonic"
      :options="keys"
      @choose="(tonic) => tune.edit({ tonic })"
    />
    <PillSelect
      label="Feel"
      :chosen="tune.chart.feel"
      :options="named(tune.choices?.feels)"
      @choose="(feel) => tune.edit({ feel })"
    />
    <InputNumber
      class="tempo"
      :model-value="tune.chart.tempo"
      :min="tune.choices?.tempo.least"
      :max="tune.choices?.tempo.most"
      :use-grouping="false"
      aria-label="Tempo"
      @update:model-value="setTempo"
    />
    <PillSelect
      label="Position"
      :chosen="view.position.value?.id"
      :options="positions"
      @choose="(pos) => view.set({ pos, target: undefined })"
    />
    <PillSelect
      label="Box"
      :chosen="box"
      :options="named(tune.choices?.boxes)"
      @choose="(kind) => tune.edit({ set: { box: kind } })"
    />
    <button
      v-if="imagines"
      type="button"
      class="chip imagined"
      :aria-pressed="Boolean(tune.chart.imagining)"
      title="Follow the imagined chords, or the written ones (i)"
      @click="imagine"
    >
      imagined
    </button>
    <button
      type="button"
      class="play"
      :aria-label="player.state === 'silent' ? 'Play' : 'Stop'"
      :title="player.state === 'silent' ? 'Play (space)' : 'Stop (space)'"
      @click="player.toggle()"
    >
      <i
        :class="{
          'pi pi-play': player.state === 'silent',
          'pi pi-spin pi-spinner': player.state === 'loading',
          'pi pi-stop': player.state === 'playing',
        }"
      />
    </button>
    <button
      type="button"
      class="step"
      aria-label="Undo"
      title="Undo (Ctrl z)"
      :disabled="!undoing.canUndo"
      @click="undoing.undo()"
    >
      <i class="pi pi-undo" />
    </button>
    <button
      type="button"
      class="step"
      aria-label="Redo"
      title="Redo (Ctrl ⇧ z)"
      :disabled="!undoing.canRedo"
      @click="undoing.redo()"
    >
      <i class="pi pi-undo mirrored" />
    </button>
    <span class="saved quiet" role="status">{{ saved }}</span>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 44px;
  margin-bottom: 8px;
}
h1 {
  flex: 1;
  min-width: 0;
  font-size: 1.65rem;
  font-weight: 750;
  line-height: 1.1;
}
.title {
  display: block;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border: 0;
  background: none;
  padding: 4px 0;
  cursor: pointer;
  font: inherit;
}
.tempo :deep(.p-inputtext) {
  width: 3.6rem;
  border-radius: 999px;
  padding: 0.25rem 0.6rem 0.25rem 0.75rem;
  font-size: 0.93rem;
}
.imagined {
  flex: none;
  font-style: italic;
}
.play {
  flex: none;
  width: 44px;
  height: 36px;
  border: 0;
  border-radius: 999px;
  background: var(--now);
  color: var(--on-fill);
  cursor: pointer;
}
.step {
  flex: none;
  width: 26px;
  height: 30px;
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
}
.step:disabled {
  color: var(--line);
  cursor: default;
}
.mirrored {
  transform: scaleX(-1);
}
.saved {
  flex: none;
  min-width: 3.2rem;
  text-align: right;
  font-size: 0.9rem;
}
</style>
