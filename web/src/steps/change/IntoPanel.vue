<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { ApproachOption } from '../../api/client'
import { heard } from '../../tab/tab'
import TabView from '../../tab/TabView.vue'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { usePlayer } from '../../sound/player'
import { useExporting } from '../../sound/export'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { sorts } from './address'
import type { ChangeWork } from './change'

/** Every way to lead into the target, and on from it, as tab that lands on time. */
const props = defineProps<{ work: ChangeWork; way: ApproachOption | undefined }>()
const tune = useTune()
const view = useView()
const player = usePlayer()
const exporting = useExporting()
const { into, noTarget, shown, sort } = props.work

const measure = { ease: 'effort', tension: 'tension', length: 'length' } as const
/** Easiest and shortest first; of tension the most. */
const ways = computed(() => {
  const by = measure[sort.value]
  const sign = sort.value === 'tension' ? -1 : 1
  return [...(into.value?.options ?? [])].sort((a, b) => sign * (a[by] - b[by]) || a.effort - b.effort)
})
const refused = computed(() => [...(into.value?.refused ?? []), ...(into.value?.refusedRuns ?? [])])
const listed = ref(false)
const picked = ref<number>()
watch(
  () => props.way,
  () => (picked.value = undefined),
)
const why = computed(() => props.way?.tab.events[player.event ?? picked.value ?? -1]?.why)
function takeAway() {
  const { way } = props
  if (!tune.chart || !way) return
  const name = `${tune.chart.title}, bar ${shown.value?.arriving.bar}, ${way.name}`
  void exporting.lineAsSound(name, { chart: tune.chart, ...heard(way.tab) })
}
const choose = (way: ApproachOption) => view.set({ approach: way.name })
const says = computed(() => {
  const way = props.way
  return way ? `${way.spoken}: it starts on ${way.starts}` : ''
})

function walk(by: number) {
  const all = [...ways.value, ...(into.value?.chromaticRuns ?? [])]
  const here = all.findIndex((way) => way.name === props.way?.name)
  const next = all[(here + by + all.length) % all.length]
  if (next) void choose(next)
}
useKeys([
  { key: 'a', says: 'another approach', run: () => walk(1) },
  {
    key: 's',
    says: 'another subdivision',
    run: () => {
      const all = view.subdivisions.value
      void view.set({ sub: all[(all.indexOf(view.subdivision.value) + 1) % all.length] })
    },
  },
])

/** The name of a way, and what is written for it where that has other words. */
function spokenName({ name, short }: { name: string; short: string }) {
  const words = name.split(' ')
  const written = short.split(' ').filter((word) => /\p{L}{2}/u.test(word))
  return written.every((word) => words.includes(word)) ? name : `${name}: ${signs(short)}`
}
</script>

<template>
  <div class="into">
    <p v-if="noTarget" role="alert">{{ signs(noTarget) }}.</p>
    <template v-else-if="into">
      <div class="head">
        <h2>
          Into {{ signs(into.target.note) }}, the {{ signs(into.target.degree) }} of
          {{ signs(shown?.arriving.chord ?? '') }}
        </h2>
        <span class="quiet">lands on {{ into.lands }}</span>
        <PillSelect
          class="right"
          label="Sort approaches by"
          :chosen="sort"
          :options="sorts.map((s) => ({ value: s, text: `by ${s}` }))"
          @choose="(by) => work.query.set({ sort: by })"
        />
        <PillSelect
          label="Subdivision"
          :chosen="view.subdivision.value"
          :options="named(view.subdivisions.value)"
          @choose="(sub) => view.set({ sub })"
        />
      </div>
      <div class="choices" role="group" aria-label="Approaches">
        <button
          v-for="one in ways"
          :key="one.name"
          type="button"
          class="chip"
          :aria-pressed="one.name === way?.name"
          :title="`${one.spoken}: effort ${one.effort}, tension ${one.tension}, ${one.length} ${one.length === 1 ? 'note' : 'notes'} before it`"
          :aria-label="spokenName(one)"
          @click="choose(one)"
        >
          {{ signs(one.short) }}
        </button>
      </div>
      <div class="choices" role="group" aria-label="Connectors, on from the change">
        <span class="quiet">on from it</span>
        <button
          v-for="one in into.chromaticRuns"
          :key="one.name"
          type="button"
          class="chip"
          :aria-pressed="one.name === way?.name"
          :title="one.spoken"
          :aria-label="spokenName(one)"
          @click="choose(one)"
        >
          {{ signs(one.short) }}
        </button>
        <PillSelect
          v-if="into.maxBeats > 0"
          label="Beats of a connector"
          :chosen="String(into.beats)"
          :options="
            Array.from({ length: into.maxBeats }, (_, n) => ({
              value: String(n + 1),
              text: `over ${n + 1} ${n ? 'beats' : 'beat'}`,
            }))
          "
          @choose="(beats) => work.query.set({ beats: Number(beats) })"
        />
      </div>
      <ul v-if="listed" class="refused" aria-label="What does not fit, and why">
        <li v-for="r in refused" :key="r.name">
          <b>{{ r.name }}</b> <span class="quiet">{{ signs(r.reason) }}</span>
        </li>
        <li v-if="!refused.length">Everything fits.</li>
      </ul>
      <TabView
        v-else-if="way && tune.map"
        class="tab"
        label="The approach as tab"
        :line="way.tab"
        :strings="tune.map.instrument.strings"
        :sounding="player.event"
        :chosen="picked"
        @pick="(index) => (picked = index)"
      />
      <p class="acts">
        <button type="button" class="primary" @click="player.toggle()">
          {{ player.state === 'silent' ? 'Hear it' : 'Stop' }}
        </button>
        <button type="button" class="chip" title="What is heard, as a sound file" @click="takeAway">
          WAV
        </button>
        <span class="why">{{ signs(why ?? says) }}</span>
        <button type="button" class="chip right" :aria-pressed="listed" @click="listed = !listed">
          {{ refused.length }} do not fit
        </button>
      </p>
    </template>
  </div>
</template>

<style scoped>
/* Fewer rows of chips leave more to the tab; the panel stays as high as it is. */
.into {
  min-height: var(--panel-least, 20.67rem);
  display: flex;
  flex-direction: column;
  min-width: 0;
  border-left: 1px solid var(--line);
  padding-left: 1rem;
}
.head {
  gap: 0.6rem;
  margin-bottom: 2px;
}
.choices {
  margin-bottom: 2px;
  font-size: 0.82rem;
  gap: 2px 4px;
}
.choices .chip {
  padding: 0.06rem 0.45rem;
}
.right {
  margin-left: auto;
}
.tab {
  flex: 1 1 0;
  min-height: 0;
  max-height: var(--panel-most, 12rem);
}
.refused {
  flex: 1 1 0;
  min-height: 0;
  overflow-y: auto;
  font-size: 0.9rem;
}
.acts {
  display: flex;
  align-items: center;
  gap: 0.7rem;
}
.acts .chip {
  flex: none;
}
.why {
  font-size: 0.85rem;
  line-height: 1.1;
  max-height: var(--panel-most, 2.4em);
  overflow: hidden;
}
.primary {
  padding: 0.3rem 1.2rem;
}
@container main (max-width: 52rem) {
  .into {
    border-left: 0;
    padding-left: 0;
  }
}
</style>
