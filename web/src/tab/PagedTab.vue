<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Tab } from '../api/client'
import { usePlayer } from '../sound/player'
import { signs } from '../controls/spelling'
import { useTune } from '../document/tune'
import { useView } from '../address/view'
import { asEvent } from './tab'
import TabView from './TabView.vue'

/**
 * A chorus written out as tab, as many bars at once as can be read, at most so many
 * notes: those that are heard, or else those under work. It is heard over the band from there on.
 */
const props = withDefaults(defineProps<{ tab: Tab; label: string; width?: number; most?: number }>(), {
  width: 838,
  most: 24,
})
const tune = useTune()
const view = useView()
const player = usePlayer()

const barCount = computed(() => {
  const inABar = props.tab.events.filter((e) => e.tick < props.tab.barTicks).length
  return Math.max(1, Math.floor(props.most / Math.max(inABar, 1)))
})
const firstBar = computed(() => {
  const bar = (player.bar ?? view.moment.value?.bar ?? 1) - 1
  return Math.floor(bar / barCount.value) * barCount.value
})
const page = computed(() => {
  const { barTicks, beatTicks, start } = props.tab
  const from = firstBar.value * barTicks
  const to = from + barCount.value * barTicks
  const first = props.tab.events.findIndex((e) => e.tick >= from)
  const events = props.tab.events
    .filter((e) => e.tick >= from && e.tick < to)
    .map((e) => ({ ...e, tick: e.tick - from }))
  return { first, line: { events, start: start + from, barTicks, beatTicks } }
})

/** Where in the whole the notes being heard began. */
const heardFrom = ref(0)
watch(
  () => player.silent,
  (silent) => silent && (heardFrom.value = 0),
)
const sounding = computed(() =>
  player.event === undefined ? undefined : player.event + heardFrom.value - page.value.first,
)
const picked = ref<number>()
watch(page, () => (picked.value = undefined))
const why = computed(() => page.value.line.events[sounding.value ?? picked.value ?? -1]?.why)

function hear() {
  if (!player.silent || !tune.chart || !tune.read) return void player.stop()
  heardFrom.value = page.value.first
  const start = firstBar.value * props.tab.barTicks
  const events = props.tab.events
    .slice(page.value.first)
    .map((e) => ({ ...asEvent(e), tick: e.tick - start }))
  void player.play({
    chart: tune.chart,
    from: firstBar.value + 1,
    bars: tune.read.facts.bars - firstBar.value,
    countIn: 1,
    line: { meter: props.tab.meter, events, start: props.tab.start + start },
  })
}
</script>

<template>
  <div v-if="tune.map">
    <TabView
      class="tab"
      :label="label"
      :width="width"
      :line="page.line"
      :strings="tune.map.instrument.strings"
      :sounding="sounding"
      :chosen="picked"
      @pick="(index) => (picked = index)"
    />
    <p class="acts">
      <button type="button" class="chip" @click="hear">
        {{ player.silent ? 'Hear it over the band' : 'Stop' }}
      </button>
      <span class="quiet">{{ signs(why ?? '') }}</span>
    </p>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  align-items: baseline;
  gap: 0.8rem;
}
</style>
