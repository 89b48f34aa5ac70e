<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { keyOf, useKeyOptions } from './keyoptions'
import { useTap } from './tap'

/** What holds for the whole tune. */
const tune = useTune()
const chart = computed(() => tune.chart)
const title = ref('')
const tags = ref('')
watch(
  chart,
  (c) => {
    title.value = c?.title ?? ''
    tags.value = (c?.tags ?? []).join(', ')
  },
  { immediate: true },
)

const keys = useKeyOptions()

const reread = (value: string) => void tune.edit({ reread: keyOf(value) })

function retitle() {
  if (title.value.trim() !== chart.value?.title) void tune.edit({ set: { title: title.value } })
}

function retag() {
  const all = tags.value
    .split(',')
    .map((tag) => tag.trim())
    .filter((tag, index, list) => tag && list.indexOf(tag) === index)
  if (all.join() !== (chart.value?.tags ?? []).join()) void tune.edit({ set: { tags: all } })
}

function setTempo(tempo: number | null) {
  if (tempo && tempo !== chart.value?.tempo) void tune.edit({ set: { tempo } })
}
const tap = useTap(setTempo)
useKeys([{ key: 't', says: 'tap the tempo', run: tap }])
</script>

<template>
  <div v-if="chart" class="fields">
    <label class="what" for="title">Title</label>
    <InputText id="title" v-model="title" maxlength="120" @change="retitle" />
    <label class="what" for="tags">Tags</label>
    <InputText id="tags" v-model="tags" placeholder="set, slow, …" @change="retag" />

    <span class="what">Transpose</span>
    <div>
      <PillSelect
        label="Transpose to"
        :chosen="chart.key.tonic"
        :options="named(tune.choices?.tonics[chart.key.mode])"
        @choose="(tonic) => tune.edit({ tonic })"
      />
      <small class="quiet">moves the chords</small>
    </div>
    <span class="what">Re-read</span>
    <div>
      <PillSelect
        label="Re-read in"
        :chosen="`${chart.key.tonic} ${chart.key.mode}`"
        :options="keys"
        @choose="reread"
      />
      <small class="quiet">keeps them, new numerals</small>
    </div>

    <span class="what">Tempo</span>
    <div class="tempo">
      <button type="button" class="chip" aria-label="Slower" @click="tune.makeFaster(-1)">−</button>
      <InputNumber
        :model-value="chart.tempo"
        :min="tune.choices?.tempo.least"
        :max="tune.choices?.tempo.most"
        :use-grouping="false"
        aria-label="Tempo of the tune"
        @update:model-value="setTempo"
      />
      <button type="button" class="chip" aria-label="Faster" @click="tune.makeFaster(1)">+</button>
      <button type="button" class="chip" @click="tap">Tap <span class="quiet">t</span></button>
    </div>
    <span class="what">Meter</span>
    <div>
      <PillSelect
        label="Meter"
        :chosen="chart.meter"
        :options="named(tune.choices?.meters)"
        @choose="(meter) => tune.edit({ meter })"
      />
    </div>
    <span class="what">Feel</span>
    <div>
      <PillSelect
        label="Feel of the tune"
        :chosen="chart.feel"
        :options="named(tune.choices?.feels)"
        @choose="(feel) => tune.edit({ feel })"
      />
      <small v-if="chart.feel === 'slow 12/8'" class="quiet">each beat counts three eighths</small>
    </div>
    <template v-if="chart.feel === 'shuffle'">
      <span class="what">Swing</span>
      <div>
        <InputNumber
          class="narrow"
          :model-value="chart.swing"
          :min="tune.choices?.swing.least"
          :max="tune.choices?.swing.most"
          :step="0.1"
          :max-fraction-digits="2"
          show-buttons
          aria-label="Swing"
          @update:model-value="(swing: number | null) => swing && tune.edit({ set: { swing } })"
        />
        <small class="quiet">long eighth to short; 2 is triplets</small>
      </div>
    </template>
    <span class="what">Capo</span>
    <div>
      <InputNumber
        class="narrow"
        :model-value="chart.capo ?? 0"
        :min="tune.choices?.capo.least"
        :max="tune.choices?.capo.most"
        show-buttons
        aria-label="Capo"
        @update:model-value="(capo: number | null) => tune.edit({ set: { capo: capo ?? 0 } })"
      />
      <small class="quiet">{{ tune.read?.fretted ? `played in ${signs(tune.read.fretted)}` : 'none' }}</small>
    </div>
    <span class="what">Scheme</span>
    <div>
      <PillSelect
        label="Scheme"
        placeholder="own bars"
        :chosen="tune.read?.scheme || undefined"
        :options="(tune.choices?.schemes ?? []).map((s) => ({ value: s.name, text: s.name }))"
        @choose="(scheme) => tune.edit({ scheme })"
      />
      <small class="quiet">replaces all bars</small>
    </div>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr);
  align-items: center;
  gap: 0.55rem 0.4rem;
}
.what {
  color: var(--stone);
  font-size: 0.92rem;
}
small {
  margin-left: 0.5rem;
}
.fields :deep(.p-inputtext) {
  padding: 0.3rem 0.6rem;
  width: 100%;
}
.tempo {
  display: flex;
  gap: 6px;
}
.tempo :deep(.p-inputtext) {
  width: 4.4rem;
}
.narrow :deep(.p-inputtext) {
  width: 6rem;
}
.fields :deep(.pill) {
  min-width: 6.4rem;
}
</style>
