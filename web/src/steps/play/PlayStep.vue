<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import BenchTabs from '../../controls/BenchTabs.vue'
import { stripShows } from '../../controls/formstrip'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useBand } from '../../document/band'
import SaveNotice from '../../document/SaveNotice.vue'
import { useView } from '../../address/view'
import NeckView from '../../neck/NeckView.vue'
import { withPlayed } from '../../neck/played'
import ListenBar from '../../sound/ListenBar.vue'
import { usePlayer } from '../../sound/player'
import { useRecording } from '../../sound/recording'
import { parts } from '../../sound/mixer'
import { benches, usePlayQuery } from './address'
import ExportPanel from './ExportPanel.vue'
import { useStageListening } from './listening'
import TradedBars from './TradedBars.vue'
import BandPanel from './BandPanel.vue'
import ClickPanel from './ClickPanel.vue'
import MixerRow from './MixerRow.vue'
import PedalPanel from './PedalPanel.vue'
import { usePedals } from './pedals'
import RoutinePanel from './RoutinePanel.vue'
import StageHead from './StageHead.vue'
import { useStage } from './stage'
import ThumbControls from './ThumbControls.vue'

const tune = useTune()
const band = useBand()
const view = useView()
const player = usePlayer()
const query = usePlayQuery()
const stage = useStage()
const {
  pass,
  map,
  hand,
  nextHand,
  chord,
  next,
  landing,
  near,
  position,
  shown,
  neckMarks,
  showsNeck,
  ready,
  refusal,
} = stage

const recording = useRecording()
const { listening, traded } = useStageListening(pass)
const litMarks = computed(() =>
  withPlayed(neckMarks.value, listening.listens.value ? recording.sounding : undefined, position.value),
)

const sounds = computed(() => player.tuneSounds)
const yours = computed(() => {
  const bar = player.bar
  return Boolean(sounds.value && bar && pass.value?.yours.some((b) => bar >= b.from && bar <= b.to))
})
const tempo = computed(() => Math.round(((pass.value?.performance.tempo ?? 0) * player.speed) / 100))
const chorusSeconds = computed(() => {
  const p = pass.value?.performance
  return p ? ((p.end - p.countIn) / p.beatTicks) * (60 / p.tempo) : 0
})
const headline = computed(() => {
  if (!pass.value) return ''
  const words = [`${pass.value.segment || band.chosen?.routine.name}`]
  if (sounds.value) words.push(`chorus ${pass.value.place.chorus + 1}`)
  if (pass.value.chart.key.tonic !== tune.chart?.key.tonic)
    words.push(`in ${signs(pass.value.chart.key.tonic)}`)
  if (position.value)
    words.push(signs(`${position.value.label}, ${position.value.core}–${position.value.coreEnd}`))
  const ahead = nextHand.value
  if (ahead && pass.value.hand.length > 1) {
    const bar = tune.read?.played.find((one) => one.tick === ahead.tick)?.number
    words.push(signs(`from bar ${bar} ${ahead.box}`))
  } else if (hand.value && pass.value.hand.length > 1) words.push(signs(hand.value.box))
  words.push(`${tempo.value} a minute`)
  return words.join(' · ')
})

const views = computed(() => tune.choices?.stageViews ?? [])
const setView = (view: string) =>
  band.edit(`the stage shows ${view}`, { view: view === views.value[0] ? undefined : view })
/** The next view that shows less; after nothing comes the first one again. */
function showLess() {
  const at = views.value.indexOf(band.band.view || views.value[0] || '')
  void setView(views.value[(at + 1) % views.value.length] ?? '')
}
// What is not shown on the stage is not shown above it either.
watchEffect(() => {
  stripShows.value = shown.value === 'nothing' ? 'nothing' : shown.value === 'form' ? 'bars' : 'chords'
})
onBeforeUnmount(() => (stripShows.value = 'chords'))

/** While a segment is edited the rest makes room for it. */
const editing = ref(false)
const allSilent = computed(() => parts.every((part) => band.isSilent(part) || band.band.levels?.[part] === 0))

const pedals = usePedals({
  play: () => player.toggle(),
  segment: () => void player.skip(),
  finish: () => void player.finish(),
  loop: () => player.setLoop(!player.loop),
  faster: () => player.faster(2),
  slower: () => player.faster(-2),
  chords: () => void band.toggleSilent('chords'),
})
useKeys(() => pedals.bindings.value)
useKeys([
  { key: 'h', says: 'show less on the stage', run: showLess },
  { key: 'l', says: 'lost? show the tones', run: () => void setView(views.value[0] ?? '') },
  { key: '.', says: 'on to the next segment', run: () => void player.skip() },
  {
    key: 'w',
    says: 'the next panel: routine, band, click, export, pedal',
    run: () => {
      const at = benches.findIndex((b) => b.name === query.bench.value)
      void query.set({ bench: benches[(at + 1) % benches.length]?.name })
    },
  },
])
</script>

<template>
  <section class="play">
    <SaveNotice v-if="band.kept" :document="band.kept" what="band" />
    <p v-if="refusal" class="says" role="alert">{{ signs(refusal) }}.</p>
    <template v-if="pass">
      <p class="line quiet" role="status">
        <span>{{ headline }}</span>
        <TradedBars v-if="traded" :from="traded.from" :to="traded.to" :verdict="traded.verdict" />
        <span v-if="player.held" class="warn" role="alert">
          The sound device holds the sound up. It goes on when the device is there again; play begins anew.
        </span>
        <span v-else-if="player.missing.length" class="warn" role="alert">
          Not loaded: {{ player.missing.join(', ') }}. The rest plays.
        </span>
        <span v-else-if="allSilent" class="warn">Every part is silent.</span>
        <span v-else-if="pass.text" class="warn">{{ signs(pass.text) }}.</span>
        <span v-else-if="player.staysAwake === false">
          This browser may dim the screen while it plays: it keeps it awake on this machine’s own address or
          over TLS alone.
        </span>
      </p>
      <StageHead
        v-if="shown !== 'nothing'"
        :pass="pass"
        :chord="chord"
        :next="next"
        :landing="landing"
        :near="near"
        :beat="sounds ? player.beat : undefined"
        :picked="view.picked.value?.bar ?? 1"
        :shown="shown"
        :yours="yours"
        :arriving-box="next?.box"
      />
      <div v-else class="nothing" />
      <NeckView
        v-if="map && position && showsNeck"
        class="neck"
        :instrument="map.instrument"
        :span="position"
        :marks="litMarks"
        :label="`${signs(chord?.chord ?? '')} on the neck, frets ${position.low} to ${position.high}`"
        :spacing="34"
        reading
      />
      <div v-else class="no-neck" aria-hidden="true" />
    </template>

    <ThumbControls v-if="ready" />

    <!-- What is to be clicked comes when all above it is drawn: it never moves from under the mouse. -->
    <div v-if="ready" class="bench">
      <BenchTabs :tabs="benches" :chosen="query.bench.value" @choose="(bench) => query.set({ bench })">
        <span class="right acts">
          <span v-if="query.bench.value === 'routine'" class="quiet">{{
            signs(band.chosen?.text ?? '')
          }}</span>
          <button
            type="button"
            class="chip"
            :disabled="!sounds"
            title="On to the next segment (.)"
            @click="player.skip()"
          >
            next segment
          </button>
          <button
            type="button"
            class="chip"
            :disabled="!sounds"
            :aria-pressed="player.finishing"
            title="End well: slow down at the end of this chorus (End)"
            @click="player.finish()"
          >
            end well
          </button>
        </span>
      </BenchTabs>
      <div role="tabpanel" :aria-label="benches.find((one) => one.name === query.bench.value)?.title">
        <RoutinePanel
          v-if="query.bench.value === 'routine'"
          v-model:editing="editing"
          :sounding="sounds ? pass?.place.segment : undefined"
        />
        <BandPanel v-else-if="query.bench.value === 'band'" :style="pass?.style ?? ''" :says="pass?.text" />
        <ClickPanel v-else-if="query.bench.value === 'click'" />
        <ExportPanel v-else-if="query.bench.value === 'export'" :chorus-seconds="chorusSeconds" />
        <PedalPanel v-else :does="pedals.does" @assign="pedals.assign" />
        <div
          v-if="(query.bench.value === 'routine' && !editing) || query.bench.value === 'band'"
          class="foot"
        >
          <MixerRow />
          <div class="choices views" role="group" aria-label="What the stage shows">
            <span class="what quiet">shows</span>
            <button
              v-for="one in views"
              :key="one"
              type="button"
              class="chip"
              :aria-pressed="(band.band.view || views[0]) === one"
              @click="setView(one)"
            >
              {{ one }}
            </button>
            <ListenBar :listening="listening" />
            <span class="quiet care">Headphones low; rest every 25 minutes; stop at any pain.</span>
          </div>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  gap: 1.2rem;
  min-height: 1.4rem;
}
.warn {
  color: var(--next);
  font-weight: 650;
}
.nothing,
.no-neck {
  height: 150px;
}
.no-neck {
  height: 120px;
}
.right {
  margin-left: auto;
  display: flex;
  align-items: baseline;
  gap: 8px;
}
.foot {
  display: flex;
  flex-direction: column;
  gap: 4px;
  margin-top: 0.3rem;
}
.views {
  margin: 0;
}
.care {
  margin-left: auto;
  font-size: 0.85rem;
}
.bench {
  padding: 0.5rem 1.1rem 0.6rem;
}
.foot {
  border-top: 1px solid var(--line);
  padding-top: 6px;
}
@container main (max-width: 38rem) {
  .line:not(:has(.warn)) {
    display: none;
  }
  .bench :deep(.head) {
    flex-wrap: wrap;
    gap: 0.4rem 0.8rem;
  }
  .right {
    margin-left: 0;
  }
}
</style>
