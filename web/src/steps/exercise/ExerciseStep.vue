<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useView } from '../../address/view'
import BenchTabs from '../../controls/BenchTabs.vue'
import { useKeys } from '../../controls/keys'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { useExercises } from '../../document/exercises'
import SaveNotice from '../../document/SaveNotice.vue'
import { useTune } from '../../document/tune'
import { toneMark, type Mark } from '../../neck/marks'
import { samePlace } from '../../neck/geometry'
import NeckView from '../../neck/NeckView.vue'
import { usePlayer, useSource } from '../../sound/player'
import { asEvent } from '../../tab/tab'
import { sides, useExerciseQuery } from './address'
import BeginPanel from './BeginPanel.vue'
import ChoicesPanel from './ChoicesPanel.vue'
import ExerciseActs from './ExerciseActs.vue'
import EtudeList from './EtudeList.vue'
import EtudePanel from './EtudePanel.vue'
import { useEtudes } from './etude'
import ExerciseTab from './ExerciseTab.vue'
import KeepPanel from './KeepPanel.vue'
import { useKeeping } from './keeping'
import { usePractised } from './practised'
import { useExerciseWork } from './work'

const tune = useTune()
const view = useView()
const player = usePlayer()
const exercises = useExercises()
const query = useExerciseQuery()
const work = useExerciseWork(query)
const keeping = useKeeping(work, query)
const { clean, wasClean } = usePractised(work, query)
const { document, exercise, written, problem, nearest } = work
const etudes = useEtudes()
/** What was made is shown in place of the tab. */
const showsEtudes = computed(
  () => query.side.value === 'etude' && (etudes.made.value.length > 0 || etudes.notice.value !== ''),
)
const beginPanel = ref<InstanceType<typeof BeginPanel>>()

onMounted(() => exercises.load().catch(tune.tell))

const ramp = { from: 60, to: 100, by: 5 }
const silent = ['drums', 'bass', 'chords'] as const
const heard = computed(() => {
  const w = written.value
  if (!w || !tune.chart) return undefined
  return {
    chart: w.chart ?? tune.chart,
    ...{ from: w.firstBar, bars: w.bars, countIn: 1 },
    ...(query.alone.value && { silent: [...silent] }),
    line: { meter: w.tab.meter, start: w.tab.start, events: w.tab.events.map(asEvent) },
  }
})
useSource('exercise', () => {
  if (!heard.value) return undefined
  const showsChart = written.value?.chart !== undefined
  return { ...heard.value, showsChart, ...(query.ramp.value && { ramp }) }
})

/** Where in its chart the exercise is: where it sounds, or else where the tune is looked at. */
const at = computed(() => player.chord?.at ?? (written.value?.chart ? 0 : (view.moment.value?.tick ?? 0)))
const shape = computed(() => {
  const shapes = written.value?.shapes ?? []
  const sounding = player.event === undefined ? undefined : written.value?.tab.events[player.event]
  const tick = sounding ? sounding.tick + written.value!.tab.start : at.value
  return shapes.findLast((one) => one.tick <= tick) ?? shapes[0]
})
const marks = computed<Mark[]>(() => {
  const event = player.event === undefined ? undefined : written.value?.tab.events[player.event]
  return (shape.value?.tones ?? []).map((tone) => ({
    ...toneMark(tone, 'tone'),
    lit: event !== undefined && samePlace(tone, event),
  }))
})
/** The frets of the whole exercise, so that the neck stands still. */
const span = computed(() => {
  const frets = (written.value?.tab.events ?? []).map((e) => e.fret)
  const here = written.value?.position ?? view.position.value!
  const low = Math.min(...frets)
  const high = Math.max(...frets)
  if (!frets.length || (low >= here.low && high <= here.high)) return here
  // What leaves the position has no core.
  return { ...here, low, high, core: low, coreEnd: high }
})

const theTunes = 'tune'
const keys = computed(() => {
  const tonics = tune.choices?.tonics[tune.chart?.key.mode ?? ''] ?? []
  return [{ value: theTunes, text: 'the tune’s key' }, ...named(tonics)]
})
const title = computed(() => {
  if (exercise.value?.name) return exercise.value.name
  return tune.choices?.exercises.readyMade.find((one) => one.about === exercise.value?.about)?.name
})
const position = computed(() => written.value?.position)

/** Walks through the list that is shown. */
function walk(by: number) {
  const all = tune.choices?.exercises.readyMade ?? []
  const here = all.findIndex((one) => one.about === exercise.value?.about)
  const next = all[(here + by + all.length) % all.length]
  if (next) void work.tryOut(next)
}
useKeys([
  { key: 'ArrowUp', shown: '↑', says: 'the exercise above', run: () => walk(-1) },
  { key: 'ArrowDown', shown: '↓', says: 'the exercise below', run: () => walk(1) },
  { key: 'a', says: 'alone, or over the band', run: () => void query.set({ alone: !query.alone.value }) },
  { key: 'c', says: 'it was clean at this tempo', run: () => void wasClean() },
  { key: 'k', says: 'keep the exercise', run: () => void keeping.keep() },
  {
    key: 'f',
    says: 'find exercises',
    run: () => void query.set({ side: 'begin' }).then(() => beginPanel.value?.find()),
  },
])
</script>

<template>
  <section v-if="tune.map && tune.choices && view.position.value && exercise">
    <p class="says">
      <strong class="name">{{ title ?? 'An exercise' }}</strong>
      <span>{{ signs(written?.text ?? '') }}</span>
      <span class="quiet place">
        <template v-if="position && query.key.value">
          {{ position.form ? `${position.form} form, ` : '' }}frets {{ position.core }}–{{ position.coreEnd }}
        </template>
      </span>
      <PillSelect
        label="Key of the exercise"
        :chosen="query.key.value || theTunes"
        :options="keys"
        @choose="(key) => query.set({ key: key === theTunes ? '' : key })"
      />
    </p>
    <NeckView
      :instrument="tune.map.instrument"
      :span="span"
      :marks="marks"
      :label="`${signs(shape?.chord ?? '')} in the exercise`"
      :spacing="25"
    />
    <SaveNotice
      v-if="query.id.value"
      :document="document"
      what="exercise"
      @kept-as-new="(id) => query.set({ id, of: undefined })"
    />
    <div class="bench columns">
      <div class="side">
        <BenchTabs :tabs="sides" :chosen="query.side.value" @choose="(side) => query.set({ side })" />
        <div role="tabpanel" :aria-label="sides.find((one) => one.name === query.side.value)?.title">
          <div class="scroll">
            <BeginPanel v-if="query.side.value === 'begin'" ref="beginPanel" :work="work" :query="query" />
            <ChoicesPanel
              v-else-if="query.side.value === 'choices'"
              :work="work"
              :exercise="exercise"
              :query="query"
            />
            <EtudePanel v-else-if="query.side.value === 'etude'" :etudes="etudes" />
            <KeepPanel v-else :work="work" :keeping="keeping" :query="query" :heard="heard" />
          </div>
        </div>
      </div>
      <div class="desk">
        <EtudeList v-if="showsEtudes" :etudes="etudes" />
        <div v-else-if="problem && !problem.isFault" class="refused" role="alert">
          <p>{{ signs(problem.message) }}.</p>
          <p v-if="nearest">
            Nearest:
            <button
              type="button"
              class="chip"
              @click="
                work.edit('the nearest that can be played', (now) => ({
                  ...nearest!,
                  name: now.name,
                  tags: now.tags,
                }))
              "
            >
              {{ signs(problem.fields[0]?.nearest?.[0] ?? 'what can be played') }}
            </button>
          </p>
        </div>
        <ExerciseTab
          v-else-if="written"
          :tab="written.tab"
          :strings="tune.map.instrument.strings"
          :sounding="player.event"
        />
        <ExerciseActs
          v-if="!showsEtudes"
          :work="work"
          :query="query"
          :keeping="keeping"
          :ramp="ramp"
          :clean="clean"
          @clean="wasClean"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.name {
  font-size: 1.25rem;
  color: var(--now);
}
.place {
  margin-left: auto;
}
.columns {
  display: grid;
  grid-template-columns: 20.5rem minmax(0, 1fr);
  gap: 1.2rem;
}
.side {
  min-width: 0;
}
.scroll {
  height: var(--panel, calc(100vh - 30rem));
  min-height: var(--panel-least, 14rem);
  overflow-y: auto;
  padding-right: 6px;
}
.desk {
  min-width: 0;
  --tab-height: calc(100vh - 466px);
}
.refused {
  height: var(--panel, var(--tab-height));
}
.refused p:first-child::first-letter {
  text-transform: uppercase;
}
@container main (max-width: 58rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .scroll {
    height: auto;
    max-height: var(--panel-most, 60vh);
  }
  .desk {
    order: -1;
    --tab-height: 50vh;
  }
  .says {
    flex-wrap: wrap;
  }
}
</style>
