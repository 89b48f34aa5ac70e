<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { usePlayer } from '../sound/player'
import { useKeys } from '../controls/keys'
import { useTune } from '../document/tune'
import { useView } from '../address/view'
import { following } from '../address/following'
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

/** The speeds it can be heard at, and the one it has come to by keys. */
const speeds = computed(() => {
  const all = [25, 40, 50, 60, 70, 80, 90, 100, 110, 120]
  const now = Math.round(player.speed)
  return [...new Set([...all, now])]
    .sort((a, b) => a - b)
    .map((percent) => ({ value: String(percent), text: `${percent} %` }))
})
const looped = computed(() => {
  if (!player.bars) return ''
  const { from, to } = player.bars
  return from === to ? ` ${from}` : ` ${from}–${to}`
})

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
      class="stays"
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
    <span class="sound">
      <button
        v-if="player.tuneSounds && !following"
        type="button"
        class="chip follow"
        title="Show what sounds again (Home)"
        @click="following = true"
      >
        follow
      </button>
      <button
        type="button"
        class="chip"
        :aria-pressed="player.loop"
        :title="`Loop ${looped ? `bars${looped}` : 'what is played'} (z); drag over the form to choose bars`"
        @click="player.setLoop(!player.loop)"
      >
        loop{{ looped }}
      </button>
      <button
        v-if="looped"
        type="button"
        class="clear"
        aria-label="No looped bars"
        title="No looped bars"
        @click="player.loopBars()"
      >
        ×
      </button>
      <PillSelect
        label="Speed"
        :chosen="String(Math.round(player.speed))"
        :options="speeds"
        @choose="(one) => player.setSpeed(Number(one))"
      />
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
    </span>
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
.sound {
  flex: none;
  display: flex;
  align-items: center;
  gap: 6px;
}
.sound .chip {
  padding: 0.22rem 0.65rem;
}
.follow {
  border-color: var(--next-fill);
  color: var(--next);
}
.clear {
  width: 24px;
  height: 30px;
  margin-left: -6px;
  border: 0;
  background: none;
  padding: 0;
  font-size: 1.2rem;
  color: var(--stone);
  cursor: pointer;
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
/* On a tablet the title and the sound stand above what is chosen; on a phone only what is
   needed to play is left. */
@media (max-width: 1100px) {
  header {
    flex-wrap: wrap;
    height: auto;
    row-gap: 6px;
  }
  h1 {
    order: -3;
    flex: 1 0 calc(100% - 360px);
    font-size: 1.4rem;
  }
  .sound,
  header > :deep(.step),
  header > :deep(.saved) {
    order: -2;
  }
}
@media (max-width: 600px) {
  h1 {
    flex-basis: calc(100% - 150px);
  }
  header > :deep(.step),
  header > :deep(.saved) {
    order: -3;
  }
  header > :deep(.pill),
  header > .tempo,
  header > .imagined {
    display: none;
  }
  header > :deep(.pill.stays) {
    display: flex;
  }
  .sound .chip,
  .sound :deep(.pill) {
    min-height: 40px;
    align-items: center;
  }
  .sound .play {
    width: 56px;
    height: 44px;
  }
}
</style>
