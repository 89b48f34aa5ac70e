<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Tab } from '../api/client'
import { usePlayer } from '../sound/player'
import { signs } from '../controls/spelling'
import { useTune } from '../document/tune'
import { useView } from '../address/view'
import { endOf, shifted } from './barlines'
import { asEvent } from './tab'
import TabView from './TabView.vue'

/**
 * A chorus written out as tab, as many bars at once as can be read, at most so many
 * notes: those that are heard, or else those under work. It is heard over the band from there on.
 */
const props = withDefaults(defineProps<{ tab: Tab; label: string; most?: number }>(), { most: 24 })
const tune = useTune()
const view = useView()
const player = usePlayer()

const lines = computed(() => props.tab.barLines)
const barCount = computed(() => {
  const inABar = props.tab.events.filter((e) => e.tick < endOf(lines.value[0])).length
  return Math.max(1, Math.floor(props.most / Math.max(inABar, 1)))
})
/** The first of the bars on the page, by its index. */
const firstBar = computed(() => {
  const number = player.bar ?? view.moment.value?.bar ?? 1
  const bar = Math.max(
    lines.value.findIndex((l) => l.number === number),
    0,
  )
  return Math.floor(bar / barCount.value) * barCount.value
})
const page = computed(() => {
  const bars = lines.value.slice(firstBar.value, firstBar.value + barCount.value)
  const from = bars[0]?.tick ?? 0
  const to = endOf(bars.at(-1))
  const first = props.tab.events.findIndex((e) => e.tick >= from)
  const events = props.tab.events
    .filter((e) => e.tick >= from && e.tick < to)
    .map((e) => ({ ...e, tick: e.tick - from }))
  return { first, line: { events, barLines: shifted(bars, -from) } }
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
  const bar = lines.value[firstBar.value]
  const start = bar?.tick ?? 0
  const events = props.tab.events
    .slice(page.value.first)
    .map((e) => ({ ...asEvent(e), tick: e.tick - start }))
  void player.play({
    chart: tune.chart,
    from: bar?.number ?? 1,
    bars: tune.read.facts.bars - (bar?.number ?? 1) + 1,
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
