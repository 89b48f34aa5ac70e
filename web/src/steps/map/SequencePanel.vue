<script setup lang="ts">
import { computed } from 'vue'
import { answer, client } from '../../api/client'
import PagedTab from '../../tab/PagedTab.vue'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { useAnswer } from '../../api/ask'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { useMapQuery } from './address'

/** A figure walked through the chords in the position, as tab to play over them. */
const props = defineProps<{ position: string }>()
const tune = useTune()
const view = useView()
const query = useMapQuery()

const walks = computed(() => tune.choices?.sequences ?? [])
const over = computed(() => walks.value.find((w) => w.tones === query.walk.value) ?? walks.value[0])
const cells = computed(() => over.value?.figures ?? [])
const chosen = (wanted: string, all: string[]) => all.find((one) => one === wanted) ?? all[0] ?? ''
const cell = computed(() => chosen(query.cell.value, cells.value))
const order = computed(() => chosen(query.order.value, tune.choices?.orders ?? []))
const { subdivisions, subdivision } = view

/** As many bars are written out at most. */
const mostBars = 64
const { answer: written, refusal } = useAnswer(
  () => {
    const { music: chart, hands, read } = tune
    if (!chart || !read || !over.value) return undefined
    return {
      ...{ chart, hands, position: props.position, tones: over.value.tones, figure: cell.value },
      ...{ order: order.value, subdivision: subdivision.value },
      ...{ from: 1, bars: Math.min(read.facts.bars, mostBars) },
    }
  },
  (body, signal) => answer(client.POST('/api/compute/exercise/sequence', { body, signal })),
)
</script>

<template>
  <div class="sequence">
    <div class="choose">
      <label
        >over
        <PillSelect
          label="Tones to play"
          :chosen="over?.tones"
          :options="named(walks.map((w) => w.tones))"
          @choose="(walk) => query.set({ walk, cell: undefined })"
      /></label>
      <label
        >as
        <PillSelect
          label="Figure"
          :chosen="cell"
          :options="named(cells)"
          @choose="(one) => query.set({ cell: one })"
      /></label>
      <label
        >order
        <PillSelect
          label="Order"
          :chosen="order"
          :options="named(tune.choices?.orders)"
          @choose="(one) => query.set({ order: one })"
      /></label>
      <label
        >in
        <PillSelect
          label="Subdivision"
          :chosen="subdivision"
          :options="named(subdivisions)"
          @choose="(sub) => view.set({ sub })"
      /></label>
    </div>
    <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
    <PagedTab v-else-if="written" class="written" :tab="written" label="The sequence as tab" />
  </div>
</template>

<style scoped>
.sequence {
  display: grid;
  grid-template-columns: 15rem minmax(0, 1fr);
  gap: 1rem;
}
.choose {
  display: flex;
  flex-direction: column;
  gap: 5px;
  align-items: flex-start;
}
label {
  display: grid;
  grid-template-columns: 3rem auto;
  align-items: center;
  font-size: 0.88rem;
  color: var(--stone);
}
.written :deep(.tab) {
  max-height: calc(100vh - 612px);
  min-height: 176px;
}
</style>
