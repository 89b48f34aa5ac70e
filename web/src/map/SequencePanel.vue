<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { answer, client, type Sequence } from '../api/client'
import TabView from '../licks/TabView.vue'
import { named } from '../shell/options'
import PillSelect from '../shell/PillSelect.vue'
import { usePlayer } from '../sound/player'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/** A figure walked through the chords in the position, as tab to play over them. */
const props = defineProps<{ position: string }>()
const tune = useTune()
const view = useView()
const player = usePlayer()

const walks = computed(() => tune.choices?.sequences ?? [])
const over = computed(() => walks.value.find((w) => w.over === view.text('walk')) ?? walks.value[0])
const cells = computed(() => over.value?.cells ?? [])
const chosen = (name: string, all: string[]) => all.find((one) => one === view.text(name)) ?? all[0] ?? ''
const cell = computed(() => chosen('cell', cells.value))
const order = computed(() => chosen('order', tune.choices?.orders ?? []))
const subdivisions = computed(() => tune.choices?.subdivisions[tune.chart?.meter ?? ''] ?? [])
const subdivision = computed(() =>
  subdivisions.value.includes(view.text('sub')) ? view.text('sub') : (tune.choices?.subdivision ?? ''),
)

const all = shallowRef<Sequence>()
const refusal = ref('')
let asked = 0
watch(
  [() => tune.chart, () => tune.hands, () => props.position, over, cell, order, subdivision] as const,
  async ([chart, hands, position, walk, figure, way, sub]) => {
    const mine = ++asked
    if (!chart || !walk || !tune.read) return
    try {
      const got = await answer(
        client.POST('/api/compute/sequence', {
          body: {
            ...{ chart, hands, position, over: walk.over, cell: figure, order: way, subdivision: sub },
            from: 1,
            bars: Math.min(tune.read.facts.bars, 64),
          },
        }),
      )
      if (mine !== asked) return
      all.value = got
      refusal.value = ''
    } catch (error) {
      if (mine !== asked) return
      all.value = undefined
      refusal.value = error instanceof Error ? error.message : String(error)
    }
  },
  { immediate: true },
)

/** As many notes stand on the tab at once. */
const most = 24
const barCount = computed(() => {
  const got = all.value
  if (!got) return 1
  const inABar = got.events.filter((e) => e.tick < got.barTicks).length
  return Math.max(1, Math.floor(most / Math.max(inABar, 1)))
})
/** The bars on the tab: those that are heard, or else those of the chord under work. */
const firstBar = computed(() => {
  const bar = (player.bar ?? view.moment.value?.bar ?? 1) - 1
  return Math.floor(bar / barCount.value) * barCount.value
})
const page = computed(() => {
  const got = all.value
  if (!got) return undefined
  const from = firstBar.value * got.barTicks
  const to = from + barCount.value * got.barTicks
  const first = got.events.findIndex((e) => e.tick >= from)
  const events = got.events
    .filter((e) => e.tick >= from && e.tick < to)
    .map((e) => ({ ...e, tick: e.tick - from }))
  return {
    first,
    line: { events, start: got.start + from, barTicks: got.barTicks, beatTicks: got.beatTicks },
  }
})

/** Where in the whole exercise the notes being heard began. */
const heardFrom = ref(0)
const sounding = computed(() =>
  player.event === undefined || !page.value ? undefined : player.event + heardFrom.value - page.value.first,
)
const picked = ref<number>()
watch(page, () => (picked.value = undefined))
const why = computed(() => page.value?.line.events[picked.value ?? -1]?.why)

function hear() {
  const got = all.value
  if (player.state !== 'silent' || !got || !page.value || !tune.chart || !tune.read) return player.stop()
  heardFrom.value = page.value.first
  const start = firstBar.value * got.barTicks
  const events = got.events.slice(page.value.first).map((e) => ({
    ...{ tick: e.tick - start, ticks: e.ticks, string: e.string, fret: e.fret, finger: e.finger },
  }))
  void player.play({
    chart: tune.chart,
    from: firstBar.value + 1,
    bars: tune.read.facts.bars - firstBar.value,
    countIn: 1,
    line: { meter: got.meter, events, start: got.start + start },
  })
}
</script>

<template>
  <div class="sequence">
    <div class="choose">
      <label
        >over
        <PillSelect
          label="Walk over"
          :chosen="over?.over"
          :options="named(walks.map((w) => w.over))"
          @choose="(walk) => view.set({ walk, cell: undefined })"
      /></label>
      <label
        >as
        <PillSelect
          label="Figure"
          :chosen="cell"
          :options="named(cells)"
          @choose="(one) => view.set({ cell: one })"
      /></label>
      <label
        >order
        <PillSelect
          label="Order"
          :chosen="order"
          :options="named(tune.choices?.orders)"
          @choose="(one) => view.set({ order: one })"
      /></label>
      <label
        >in
        <PillSelect
          label="Subdivision"
          :chosen="subdivision"
          :options="named(subdivisions)"
          @choose="(sub) => view.set({ sub })"
      /></label>
      <button type="button" class="chip" @click="hear">
        {{ player.state === 'silent' ? 'Hear it over the band' : 'Stop' }}
      </button>
      <p v-if="why" class="quiet">{{ signs(why) }}</p>
    </div>
    <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
    <TabView
      v-else-if="page && tune.map"
      class="tab"
      label="The sequence as tab"
      :line="page.line"
      :strings="tune.map.instrument.strings"
      :sounding="sounding"
      :chosen="picked"
      @pick="(index) => (picked = index)"
    />
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
.tab {
  max-height: calc(100vh - 592px);
  min-height: 190px;
}
</style>
