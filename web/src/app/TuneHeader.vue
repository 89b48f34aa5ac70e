<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useKeys } from '../controls/keys'
import { useTune } from '../document/tune'
import { useView } from '../address/view'
import { named } from '../controls/options'
import NumberField from '../controls/NumberField.vue'
import PillSelect from '../controls/PillSelect.vue'
import SavedState from './SavedState.vue'
import SoundControls from './SoundControls.vue'
import UndoButtons from './UndoButtons.vue'

const tune = useTune()
const view = useView()
const router = useRouter()

const positions = computed(() =>
  (tune.map?.positions ?? []).map((p) => ({
    value: p.id,
    text: `${p.label} ${p.core}–${p.coreEnd}`.replace('form ', 'form, '),
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
const box = computed(() => tune.read?.box)

const setTempo = (tempo?: number) => void tune.edit({ set: { tempo } })

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
    <NumberField
      class="tempo"
      label="Tempo"
      :value="tune.chart.tempo"
      :least="tune.choices?.tempo.least"
      :most="tune.choices?.tempo.most"
      @entered="setTempo"
    />
    <PillSelect
      class="stays"
      label="Position"
      :chosen="view.position.value?.id"
      :options="positions"
      @choose="view.setPosition"
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
    <SoundControls class="sound" />
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
.tempo {
  flex: none;
  width: 3.6rem;
  background: var(--card);
  border-radius: 999px;
  padding: 0.25rem 0.6rem 0.25rem 0.75rem;
  font-size: 0.93rem;
}
.imagined {
  flex: none;
  font-style: italic;
}
/* On a tablet the title and the sound stand above what is chosen; on a phone only what is
   needed to play is left. */
@container main (max-width: 65rem) {
  header {
    flex-wrap: wrap;
    height: auto;
    row-gap: 6px;
  }
  h1 {
    order: -3;
    flex: 1 0 calc(100% - 24rem);
    font-size: 1.4rem;
  }
  .sound,
  header > :deep(.step),
  header > :deep(.saved) {
    order: -2;
  }
}
@container main (max-width: 40rem) {
  h1 {
    flex: 1 1 0;
  }
  header > :deep(.step),
  header > :deep(.saved) {
    order: -3;
  }
  header::before {
    content: '';
    order: -2;
    flex-basis: 100%;
    height: 0;
  }
  header > :deep(.pill),
  header > .tempo,
  header > .imagined {
    display: none;
  }
  header > :deep(.pill.stays) {
    display: flex;
  }
}
</style>
