<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { usePlayer } from '../sound/player'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

const tune = useTune()
const view = useView()
const player = usePlayer()
const router = useRouter()

const saved = computed(
  () => ({ saved: 'saved', saving: 'saving…', elsewhere: 'not saved', failed: 'not saved' })[tune.saveState],
)
const schemes = computed(() => {
  const all = tune.choices?.schemes ?? []
  return tune.read?.scheme ? all : ['', ...all]
})
const positions = computed(() =>
  (tune.map?.positions ?? []).map((p) => ({ id: p.id, label: `${p.form} form, ${p.core}–${p.coreEnd}` })),
)
const boxes = computed(() => tune.choices?.boxes ?? [])
const box = computed(() => boxes.value.find((kind) => tune.read?.boxName.endsWith(kind)))

function setTempo(tempo: number | null) {
  if (tempo && tempo !== tune.chart?.tempo) void tune.edit({ tempo })
}
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
    <Select
      class="control key"
      :model-value="tune.chart.key.tonic"
      :options="tune.choices?.tonics"
      :option-label="signs"
      scroll-height="36rem"
      aria-label="Key"
      @update:model-value="(tonic: string) => tune.edit({ tonic })"
    />
    <Select
      class="control"
      :model-value="tune.read?.scheme ?? ''"
      :options="schemes"
      placeholder="own bars"
      aria-label="Twelve-bar"
      @update:model-value="(scheme: string) => scheme && tune.edit({ scheme })"
    />
    <Select
      class="control"
      :model-value="tune.chart.feel"
      :options="tune.choices?.feels"
      aria-label="Feel"
      @update:model-value="(feel: string) => tune.edit({ feel })"
    />
    <InputNumber
      class="control tempo"
      :model-value="tune.chart.tempo"
      :min="tune.choices?.tempo.least"
      :max="tune.choices?.tempo.most"
      :use-grouping="false"
      aria-label="Tempo"
      @update:model-value="setTempo"
    />
    <Select
      class="control"
      :model-value="view.position.value?.id"
      :options="positions"
      option-label="label"
      option-value="id"
      aria-label="Position"
      @update:model-value="(pos: string) => view.set({ pos, target: undefined })"
    />
    <Select
      class="control"
      :model-value="box"
      :options="boxes"
      aria-label="Box"
      @update:model-value="(kind: string) => tune.edit({ box: kind })"
    />
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
.control {
  flex: none;
  border-radius: 999px;
}
.control :deep(.p-select-label),
.control :deep(.p-inputtext) {
  padding: 0.25rem 0.1rem 0.25rem 0.75rem;
  font-size: 0.93rem;
}
.control :deep(.p-select-dropdown) {
  width: 1.7rem;
}
.tempo :deep(.p-inputtext) {
  width: 3.6rem;
  border-radius: 999px;
  padding-right: 0.6rem;
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
.saved {
  flex: none;
  min-width: 3.6rem;
  text-align: right;
  font-size: 0.9rem;
}
</style>
