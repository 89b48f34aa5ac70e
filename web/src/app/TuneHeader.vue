<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { usePlayer } from '../sound/player'
import { useKeys } from '../controls/keys'
import { useTune } from '../document/tune'
import { useView } from '../address/view'
import { named } from '../controls/options'
import PillSelect from '../controls/PillSelect.vue'
import SavedState from './SavedState.vue'
import UndoButtons from './UndoButtons.vue'

const tune = useTune()
const view = useView()
const player = usePlayer()
const router = useRouter()

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
      @choose="view.stand"
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
      :aria-label="player.silent ? 'Play' : 'Stop'"
      :title="player.silent ? 'Play (space)' : 'Stop (space)'"
      @click="player.toggle()"
    >
      <i
        :class="{
          'pi pi-play': player.silent,
          'pi pi-spin pi-spinner': player.state === 'loading',
          'pi pi-stop': player.state === 'playing',
        }"
      />
    </button>
    <UndoButtons />
    <SavedState />
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
</style>
