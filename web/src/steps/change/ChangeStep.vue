<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Place } from '../../api/client'
import { heard } from '../../tab/tab'
import { changeMarks, emptyMarks, type Arrow, type Mark } from '../../neck/marks'
import NeckView from '../../neck/NeckView.vue'
import { samePlace } from '../../neck/geometry'
import BenchTabs from '../../controls/BenchTabs.vue'
import PillSelect from '../../controls/PillSelect.vue'
import { usePlayer, useSource } from '../../sound/player'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { exerciseQuery } from '../../address/exercise'
import BendsPanel from './BendsPanel.vue'
import BoxPanel from './BoxPanel.vue'
import { useBends } from './bends'
import { benches } from './address'
import { useChange } from './change'
import CountPanel from './CountPanel.vue'
import IntoPanel from './IntoPanel.vue'
import { usePath } from './path'
import PathPanel from './PathPanel.vue'
import MovesPanel from './MovesPanel.vue'

const tune = useTune()
const route = useRoute()
const view = useView()
const player = usePlayer()
const work = useChange()
const { bench, strategy, shown, refusal, here, target, into, query } = work

// The ways across.
const chosen = ref(0)
watch(
  () => [shown.value?.tick, shown.value?.position.id, strategy.value],
  () => (chosen.value = 0),
)
function choose(index: number) {
  const move = shown.value?.moves[index]
  if (!move) return
  chosen.value = index
  void work.aim(move.to)
}
const way = computed(() => {
  const all = [...(into.value?.options ?? []), ...(into.value?.chromaticRuns ?? [])]
  return all.find((one) => one.name === view.approach.value) ?? all[0]
})

const path = usePath(work)
const { functions, refusal: noTable, own, toggle, marks: bentMarks } = useBends(work)

/** Up the arpeggio of the chord that is left, down that of the one that arrives. */
const walk = computed(() => {
  const { leaving, arriving } = view.change.value ?? {}
  const within = leaving && arriving && arriving.bar >= leaving.bar
  return exerciseQuery({
    tones: 'seventh arpeggio',
    order: { direction: 'up one chord, down the next' },
    over: within ? { from: leaving.bar, bars: arriving.bar - leaving.bar + 1 } : {},
  })
})

// The neck.
const marks = computed<Mark[]>(() => {
  const all = shown.value
  if (!all || !tune.map) return []
  const strings = tune.map.instrument.strings.length
  const open = (taken: Mark[]) => {
    const at = here.value
    return [...taken, ...emptyMarks(strings, all.position, taken)].map((mark) =>
      at && bench.value !== 'bends' && samePlace(mark, at) ? { ...mark, chosen: true } : mark,
    )
  }
  if (bench.value === 'bends') return open(bentMarks.value)
  if (bench.value === 'path') return path.marks.value
  const both = changeMarks(all.from, all.to).map((mark) => ({
    ...mark,
    chosen: bench.value === 'moves' && target.value && samePlace(mark, target.value),
  }))
  const event = player.event
  const lit = event === undefined ? undefined : way.value?.tab.events[event]
  return open(both).map((mark) => (lit && samePlace(mark, lit) ? { ...mark, lit: true } : mark))
})

// Half steps are what lead; they are drawn, and with them the way that is chosen.
const arrows = computed<Arrow[]>(() => {
  const all = shown.value
  if (!all) return []
  if (bench.value === 'path') return path.arrows.value
  if (bench.value === 'bends') return []
  if (here.value && target.value && !samePlace(here.value, target.value)) {
    const spoken = work.near.value?.to.find((l) => target.value && samePlace(l, target.value))?.text ?? ''
    return [{ from: here.value, to: target.value, text: '', spoken, strong: true }]
  }
  return all.moves.flatMap((move, index) => {
    const strong = index === chosen.value
    const near = move.from.string === move.to.string
    if (samePlace(move.from, move.to) || !(strong || (near && move.kind === 'half step'))) return []
    return [{ from: move.from, to: move.to, text: String(index + 1), spoken: move.text, strong }]
  })
})

function pick(place: Place) {
  if (bench.value === 'bends') return toggle(place)
  if (bench.value === 'path') return path.pin(place)
  void work.setHere(place)
}

// The distinct changes: each is gone to where it comes first.
const kinds = computed(() =>
  (tune.read?.facts.changes ?? []).map((kind) => ({
    value: `${kind.leaving} ${kind.arriving}`,
    text: `${kind.leaving} → ${kind.arriving} · ${kind.bars.length > 1 ? `${kind.bars.length} times, bars` : 'once, bar'} ${kind.bars.join(' ')}`,
  })),
)
const kind = computed(() => {
  const change = view.change.value
  return change && `${change.leaving.chord} ${change.arriving.chord}`
})
const sameKind = (name: string) =>
  view.changes.value.filter((c) => `${c.leaving.chord} ${c.arriving.chord}` === name)
function goToKind(name: string) {
  const all = sameKind(name)
  // Chosen again it goes on to where the change comes next.
  const at = all.findIndex((c) => c.tick === view.change.value?.tick)
  const next = all[(at + 1) % all.length]
  if (next) void view.goTo(next.leaving)
}
function walkKinds(by: number) {
  const at = kinds.value.findIndex((k) => k.value === kind.value)
  const next = kinds.value[(at + by + kinds.value.length) % kinds.value.length]
  const first = next && sameKind(next.value)[0]
  if (first) void view.goTo(first.leaving)
}

const counting = ref<InstanceType<typeof CountPanel>>()
useSource('change', () => {
  const change = view.change.value
  if (!tune.chart || !change) return undefined
  if (bench.value === 'moves' && way.value) return { chart: tune.chart, ...heard(way.value.tab) }
  if (bench.value === 'count') return counting.value?.source()
  if (bench.value === 'bends' && functions.value)
    return { chart: tune.chart, ...heard(functions.value.motif) }
  return { chart: tune.chart, from: change.leaving.bar, bars: 2, countIn: 1 }
})

function walkWays(by: number) {
  if (bench.value !== 'moves' || here.value) return
  choose(Math.min(Math.max(chosen.value + by, 0), Math.max((shown.value?.moves.length ?? 0) - 1, 0)))
}
function walkBenches() {
  const at = benches.findIndex((b) => b.name === bench.value)
  void query.set({ bench: benches[(at + 1) % benches.length]?.name })
}
useKeys([
  { key: 'ArrowUp', shown: '↑', says: 'the way above', run: () => walkWays(-1) },
  { key: 'ArrowDown', shown: '↓', says: 'the way below', run: () => walkWays(1) },
  { key: ',', says: 'the kind of change before', run: () => walkKinds(-1) },
  { key: '.', says: 'the next kind of change', run: () => walkKinds(1) },
  { key: 'w', says: 'the next bench: path, bends, counting, box', run: walkBenches },
  { key: 'u', says: 'up and away: no longer “I am here”', run: () => void query.set({ here: undefined }) },
])

/** The drill that asks what the bench is about. */
const drillOf = computed(
  () =>
    ({ count: 'where must it begin', box: 'box and chord', path: 'guide-tone line' })[
      bench.value as string
    ] ?? 'nearest landing',
)
</script>

<template>
  <p v-if="refusal" class="says" role="alert">{{ signs(refusal) }}.</p>
  <section v-else-if="shown && tune.map && view.change.value">
    <p class="says">
      <span class="quiet">
        Bar {{ shown.leaving.bar }} → {{ shown.arriving.bar
        }}<template v-if="shown.wraps"> (the next chorus)</template>
      </span>
      <template v-if="!shown.stays">
        <strong class="leaving">{{ signs(shown.leaving.chord) }}</strong> gives way to
      </template>
      <strong class="arriving">{{ signs(shown.arriving.chord) }}</strong>
      <span class="headline cut" :title="signs(shown.headline)">{{ signs(shown.headline) }}</span>
      <PillSelect
        v-if="kinds.length"
        class="kinds"
        label="Distinct changes"
        :chosen="kind"
        :options="kinds"
        @choose="goToKind"
      />
    </p>
    <NeckView
      :instrument="tune.map.instrument"
      :span="shown.position"
      :marks="marks"
      :arrows="arrows"
      :label="`${signs(shown.leaving.chord)} to ${signs(shown.arriving.chord)} on the neck`"
      :spacing="36"
      @pick="pick"
    />
    <div class="bench">
      <BenchTabs :tabs="benches" :chosen="bench" @choose="(name) => query.set({ bench: name })">
        <span class="quiet legend">
          <template v-if="bench === 'path'">
            ×: landings there · filled: this change · underlined above: pinned
          </template>
          <template v-else-if="bench === 'bends'"
            >↑ bend so many steps · ~ shake · over {{ signs(shown.leaving.chord) }}</template
          >
          <template v-else>hollow: leaving · filled: arriving · both: held · arrows: half steps</template>
        </span>
        <RouterLink
          class="chip ask"
          title="Up this chord's arpeggio, down the next one's"
          :to="{ name: 'exercise', params: { id: tune.id }, query: { ...route.query, ...walk } }"
        >
          walk it
        </RouterLink>
        <RouterLink
          class="chip ask"
          title="Drills about landings over the changes of this tune"
          :to="{
            name: 'practice',
            params: { id: tune.id },
            query: { 'practice.page': 'drill', 'practice.kind': drillOf },
          }"
        >
          ask me
        </RouterLink>
      </BenchTabs>
      <div role="tabpanel" :aria-label="benches.find((one) => one.name === bench)?.title">
        <div v-if="bench === 'moves'" class="columns">
          <MovesPanel :work="work" :chosen="chosen" @choose="choose" />
          <IntoPanel :work="work" :way="way" />
        </div>
        <PathPanel
          v-else-if="bench === 'path'"
          :paths="path.paths.value"
          :strategy="strategy"
          :refusal="path.refusal.value"
          :pins="path.pins.value.length"
          @unpin="path.unpin"
          @clear="path.clear"
        />
        <BendsPanel
          v-else-if="bench === 'bends'"
          :functions="functions"
          :refusal="noTable"
          :own="own.length > 0"
          @small="query.set({ places: [] })"
        />
        <CountPanel v-else-if="bench === 'count'" ref="counting" :work="work" />
        <BoxPanel v-else :shown="shown" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.ask {
  padding: 0 0.6rem;
  font-size: 0.9rem;
  color: inherit;
  text-decoration: none;
}
.leaving,
.arriving {
  font-size: 1.25rem;
  color: var(--now);
}
.arriving {
  color: var(--next);
}
.headline {
  margin-left: 0.6rem;
}
.kinds {
  margin-left: auto;
}
.bench {
  margin-top: 4px;
  padding: 0.6rem 1rem 0.7rem;
}
.legend {
  margin-left: auto;
  font-size: 0.85rem;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 9fr) minmax(0, 12fr);
  gap: 1rem;
}
@container main (max-width: 52rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
