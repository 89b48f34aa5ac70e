<script setup lang="ts">
import NumberField from '../../controls/NumberField.vue'
import { computed, ref } from 'vue'
import { answer, client, type Place, type RunRequest } from '../../api/client'
import { beatsOf } from '../../tab/barlines'
import { heard } from '../../tab/tab'
import TabView from '../../tab/TabView.vue'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { usePlayer } from '../../sound/player'
import { useAnswer } from '../../api/ask'
import { useWidth } from '../../controls/measure'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { walks } from './address'
import type { ChangeWork } from './change'

/** Landing arithmetic: when a run must start, or how one is made to fit. */
const props = defineProps<{ work: ChangeWork }>()
const tune = useTune()
const view = useView()
const player = usePlayer()
const { about, here, target, shown, query } = props.work

const { notes, goal, walk: over } = query
const arrivingBar = computed(() => tune.read?.played[(shown.value?.arriving.bar ?? 1) - 1])
/** The beat of the arriving bar to land on: where the chord arrives, unless another is chosen. */
const beats = computed(() => {
  const first = shown.value?.arriving.beat ?? 1
  const bar = arrivingBar.value
  const most = bar ? bar.ticks / bar.beatTicks : 1
  return Array.from({ length: most - first + 1 }, (_, n) => first + n)
})
const beat = computed(() => beats.value.find((n) => n === query.beat.value) ?? beats.value[0] ?? 1)
/** Where the run begins on the neck: where the player is, or else the lowest tone of the leaving chord. */
const from = computed<Place | undefined>(() => here.value ?? shown.value?.from[0])

const { answer: run, refusal } = useAnswer(
  () => {
    if (!about.value || !tune.read) return undefined
    const { chart, hands, position, change } = about.value
    const beatTicks = arrivingBar.value?.beatTicks ?? 0
    const body: RunRequest = {
      chart,
      hands,
      position,
      arrival: change + (beat.value - (beats.value[0] ?? 1)) * beatTicks,
      subdivision: view.subdivision.value,
    }
    if (goal.value) body.goal = goal.value
    const at = (p: Place) => ({ string: p.string, fret: p.fret })
    if (from.value && target.value) {
      Object.assign(body, { from: at(from.value), to: at(target.value), tones: over.value })
    }
    return { ...body, notes: notes.value }
  },
  (body, signal) => answer(client.POST('/api/compute/change/run', { body, signal })),
)

/** The beats and the notes along a ruler, as shares of it. */
const ruler = computed(() => {
  const r = run.value
  if (!r) return undefined
  const end = r.arrival + r.beatTicks
  const share = (tick: number) => (tick - r.from) / (end - r.from)
  const beats = beatsOf(r.barLines)
    .filter(({ tick }) => tick < end)
    .map(({ tick, beat }) => ({ at: share(tick), text: String(beat), bar: beat === 1 }))
  return { beats, notes: r.ticks.map((tick) => ({ at: share(tick), last: tick === r.arrival })) }
})
const picked = ref<number>()
const places = computed(() => (from.value && target.value ? [from.value, target.value] : []))
const one = (n: number) => Math.round(n * 10) / 10

/** What is played: the run over the band. */
const source = () =>
  run.value?.fitted && tune.chart ? { chart: tune.chart, ...heard(run.value.fitted.tab) } : undefined
defineExpose({ source })

const ruled = ref<SVGSVGElement>()
const { width: rulerWidth } = useWidth(ruled, 480)
</script>

<template>
  <div class="count">
    <div class="sums">
      <p class="choices">
        <NumberField
          class="number"
          label="Notes of the run"
          :value="notes"
          :least="1"
          @entered="(n) => query.set({ notes: n })"
        />
        notes in
        <PillSelect
          label="Subdivision"
          :chosen="view.subdivision.value"
          :options="named(view.subdivisions.value).map((o) => ({ ...o, text: `${o.text}s` }))"
          @choose="(sub) => view.set({ sub })"
        />
        the last on
        <PillSelect
          label="Beat to land on"
          :chosen="String(beat)"
          :options="beats.map((n) => ({ value: String(n), text: `beat ${n}` }))"
          @choose="(n) => query.set({ beat: Number(n) })"
        />
        <b>of bar {{ shown?.arriving.bar }}</b>
      </p>
      <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
      <template v-if="run && ruler">
        <p class="answer">
          Start on <b>{{ run.starts }}</b>
          <button
            type="button"
            class="chip"
            aria-label="Start earlier"
            @click="query.set({ notes: run.notes + 1 })"
          >
            earlier
          </button>
          <button
            type="button"
            class="chip"
            aria-label="Start later"
            :disabled="run.notes < 2"
            @click="query.set({ notes: run.notes - 1 })"
          >
            later
          </button>
        </p>
        <svg
          ref="ruled"
          class="ruler"
          :viewBox="`0 0 ${rulerWidth} 46`"
          role="img"
          :aria-label="`${run.notes} notes from ${run.starts} to ${run.lands}`"
        >
          <line x1="8" :x2="rulerWidth - 8" y1="22" y2="22" />
          <g v-for="b in ruler.beats" :key="b.at" :transform="`translate(${8 + b.at * (rulerWidth - 16)} 0)`">
            <line :class="{ bar: b.bar }" y1="12" y2="32" />
            <text :class="{ bar: b.bar }" y="44">{{ b.text }}</text>
          </g>
          <circle
            v-for="n in ruler.notes"
            :key="n.at"
            :class="{ last: n.last }"
            :cx="8 + n.at * (rulerWidth - 16)"
            cy="22"
            :r="n.last ? 7 : 4.5"
          />
        </svg>
        <table class="speed" aria-label="How fast that is">
          <tbody>
            <tr>
              <th scope="row">at {{ tune.chart?.tempo }}</th>
              <td>
                <b>{{ one(run.perSecond) }}</b> notes a second
              </td>
            </tr>
            <tr>
              <th scope="row">as fast</th>
              <td>
                <span v-for="e in run.equal" :key="e.subdivision"
                  >{{ e.subdivision }}s at {{ one(e.tempo) }}&ensp;</span
                >
              </td>
            </tr>
            <tr>
              <th scope="row">ladder to</th>
              <td>
                <NumberField
                  class="number"
                  label="Tempo to work up to"
                  placeholder="tempo"
                  optional
                  :value="goal"
                  :least="tune.choices?.tempo.least"
                  :most="tune.choices?.tempo.most"
                  @entered="(n) => query.set({ goal: n })"
                />
                <span class="tabular">{{ run.ladder?.join(' · ') }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </div>
    <div v-if="run?.fitted && tune.map" class="fit">
      <div class="head">
        <h2>
          From {{ places[0]?.string }}:{{ places[0]?.fret }} to {{ places[1]?.string }}:{{ places[1]?.fret }}
        </h2>
        <span class="quiet">{{ here ? 'from where you are' : 'press the neck to begin elsewhere' }}</span>
        <PillSelect
          class="right"
          label="Notes between"
          :chosen="over"
          :options="named(walks)"
          @choose="(walk) => query.set({ walk })"
        />
      </div>
      <p>{{ signs(run.fitted.text) }}.</p>
      <p v-if="run.fitted.added.length">
        Passing notes: <b>{{ signs(run.fitted.added.join(', ')) }}</b>
      </p>
      <p v-if="run.fitted.dropped.length">
        Left out: <b>{{ signs(run.fitted.dropped.join(', ')) }}</b>
      </p>
      <TabView
        class="tab"
        label="The run as tab"
        :line="run.fitted.tab"
        :strings="tune.map.instrument.strings"
        :sounding="player.event"
        :chosen="picked"
        @pick="(index) => (picked = index)"
      />
      <p class="acts">
        <button type="button" class="chip" @click="player.toggle()">
          {{ player.state === 'silent' ? 'Hear the run' : 'Stop' }}
        </button>
        <span class="quiet">{{ signs(run.fitted.tab.events[player.event ?? picked ?? -1]?.why ?? '') }}</span>
      </p>
    </div>
  </div>
</template>

<style scoped>
.count {
  display: grid;
  grid-template-columns: 32rem minmax(0, 1fr);
  gap: 1.2rem;
  min-height: var(--panel-least, 18.4rem);
}
.number {
  width: 4.6rem;
  padding: 0.2rem 0.6rem;
}
.answer {
  font-size: 1.2rem;
  margin: 0.3rem 0;
}
.answer .chip {
  margin-left: 6px;
  font-size: 0.85rem;
}
.ruler {
  width: 100%;
  max-height: var(--panel-most, 3.33rem);
}
.ruler line {
  stroke: var(--line);
  stroke-width: 1.4;
}
.ruler line.bar {
  stroke: var(--ink);
  stroke-width: 2;
}
.ruler text {
  font-size: 12px;
  text-anchor: middle;
  fill: var(--stone);
}
.ruler text.bar {
  font-weight: 700;
  fill: var(--ink);
}
circle {
  fill: var(--now);
}
circle.last {
  fill: var(--next-fill);
}
.speed th {
  text-align: left;
  font-weight: 500;
  color: var(--stone);
  padding-right: 1rem;
  white-space: nowrap;
  vertical-align: baseline;
}
.fit {
  border-left: 1px solid var(--line);
  padding-left: 1rem;
  min-width: 0;
}
.right {
  margin-left: auto;
}
.tab {
  max-height: var(--panel-most, 10.53rem);
}
.acts {
  display: flex;
  align-items: baseline;
  gap: 0.8rem;
}
@container main (max-width: 52rem) {
  .count {
    grid-template-columns: minmax(0, 1fr);
  }
}
@container main (max-width: 22rem) {
  .speed {
    display: block;
    overflow-x: auto;
  }
}
</style>
