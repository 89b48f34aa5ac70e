<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, watchEffect } from 'vue'
import { useView } from '../../address/view'
import BenchTabs from '../../controls/BenchTabs.vue'
import { impliedOnStrip } from '../../controls/formstrip'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useLicks } from '../../document/licks'
import SaveNotice from '../../document/SaveNotice.vue'
import { useTune } from '../../document/tune'
import { useUndoable } from '../../document/undo'
import NeckView from '../../neck/NeckView.vue'
import { useSource } from '../../sound/player'
import { benches, useSoloQuery, type Bench } from './address'
import { useBlocks } from './blocks'
import BlockTools from './BlockTools.vue'
import ChorusChips from './ChorusChips.vue'
import { useComparing } from './comparing'
import FigureRow from './FigureRow.vue'
import { useGrowing } from './growing'
import GrowTools from './GrowTools.vue'
import HearTools from './HearTools.vue'
import { useKeeping } from './keeping'
import { firstOfRow } from '../../controls/rows'
import { blendOf, chorusMarks, heardByMoment } from './looks'
import PlanPanel from './PlanPanel.vue'
import { usePlaying } from './playing'
import { usePointing } from './pointing'
import SoloHeadline from './SoloHeadline.vue'
import { useStanding } from './standing'
import TimeLine from './TimeLine.vue'
import VerdictBench from './VerdictBench.vue'
import WhyLine from './WhyLine.vue'
import { useSolo } from './work'

// What is not looked at is not fetched.
const KeepPanel = defineAsyncComponent(() => import('./KeepPanel.vue'))
const AlternativesPanel = defineAsyncComponent(() => import('./AlternativesPanel.vue'))
const NotesPanel = defineAsyncComponent(() => import('./NotesPanel.vue'))
const tune = useTune()
const view = useView()
const licks = useLicks()
const query = useSoloQuery()
const work = useSolo(query)
const keeping = useKeeping(work, query)
const { document, solo, shown, plan, problem, at } = work
useUndoable(() => document.value)

const { bench } = query
const show = (name: Bench) => query.set({ bench: name })
const turn = (name: Bench) => void show(bench.value === name ? 'line' : name)

const bars = computed(() => tune.read?.chordSpans.at(-1)?.bar ?? 1)
const bar = computed(() => view.moment.value?.bar ?? 1)
const played = computed(() => tune.read?.played ?? [])
const chords = computed(() => (tune.read?.chordSpans ?? []).map((m) => ({ tick: m.tick, chord: m.chord })))
const blend = computed(() => blendOf(plan.value.blend, bars.value, tune.choices?.blend ?? 0.5))
const tags = computed(() => [...new Set(licks.readable.flatMap((l) => l.lick.tags ?? []))].sort())

const pointing = usePointing(work)
const { chosen, marked, mark, goToTick, goToBar } = pointing
const blocks = useBlocks(work, { onLine: () => bench.value === 'line', bar, chords, goToTick })
const { selected, writing } = blocks
function pick(event: number) {
  chosen.value = event
  selected.value = shown.value?.blockOf[event]
  goToTick(shown.value?.tab.events[event]?.tick ?? 0)
}
/** Chooses a block; the bar it begins in is the one under work. */
function select(index: number) {
  selected.value = index
  goToTick(
    Math.max(shown.value?.blocks[index]?.start ?? 0, played.value[firstOfRow(bar.value) - 1]?.tick ?? 0),
  )
}
// The form strip says which chords are heard without the band.
watchEffect(() => {
  impliedOnStrip.value = shown.value && heardByMoment(shown.value, tune.read?.chordSpans ?? [])
})
onBeforeUnmount(() => (impliedOnStrip.value = undefined))

const playing = usePlaying(work, query, { bar, bars, goToBar })
const { part, dropped, sounding } = playing
useSource('solo', () => playing.source())
const marks = computed(() =>
  chorusMarks(shown.value, played.value, bar.value, sounding.value ?? chosen.value),
)

const standing = useStanding(work, bar)
const growing = useGrowing(work)
const comparing = useComparing(work, query)

/** Makes the first repair that the verdict proposes. */
function repair() {
  const first = shown.value?.issues.find((c) => c.repairs.length)?.repairs[0]
  if (first) void work.edit(first.edit)
}
/** Writes the notes of the block, on the time line. */
function write() {
  void show('line')
  blocks.toggleWriting()
}
const drawBlend = (values: number[]) => void work.planAgain({ blend: values }, false, 'blend')

const goToChorus = (n: number) => query.set({ chorus: n })

useKeys([
  { key: 'p', says: 'plan again, what is locked stays', run: () => void work.again() },
  { key: ',', says: 'the block before', run: () => blocks.walk(-1) },
  { key: '.', says: 'the next block (on it: ← → moves it, with ⇧ its end)', run: () => blocks.walk(1) },
  { key: 'x', says: 'lock the block, or unlock it', run: blocks.toggleLock },
  { key: 'm', says: 'mute it', run: blocks.toggleMute },
  { key: 'r', says: 're-roll the block', run: () => blocks.roll() },
  { key: 'y', says: 're-roll the bar', run: () => blocks.rollBar() },
  { key: 'o', says: 'put the next lick that fits in its place', run: blocks.swapNext },
  { key: 'Delete', shown: 'del', says: 'make it a rest', run: blocks.silence },
  { key: 'e', says: 'write its notes', run: write },
  { key: 'f', says: 'make the first repair', run: repair },
  { key: 'd', says: 'drop the band', run: playing.drop },
  { key: 'h', says: 'plan it here, in the position that is looked at', run: () => void standing.planHere() },
  { key: '>', says: 'grow the chorus', run: () => growing.grow(1) },
  { key: '<', says: 'thin it', run: () => growing.grow(-1) },
  { key: 'v', says: 'the verdict', run: () => turn('verdict') },
  { key: 'w', says: 'the plan', run: () => turn('plan') },
  { key: 'a', says: 'the three alternatives', run: () => turn('alternatives') },
  { key: 'c', says: 'compare the choruses', run: () => turn('compare') },
  { key: 'k', says: 'keep: solos, versions, files', run: () => turn('keep') },
  { key: 'j', says: 'one more chorus', run: () => void work.again(true) },
])
</script>

<template>
  <section v-if="work.loaded.value && tune.map && view.position.value" class="solo">
    <SoloHeadline :work="work" :standing="standing" @repair="repair" />
    <NeckView
      :instrument="tune.map.instrument"
      :span="standing.span.value"
      :marks="marks"
      :label="`Bar ${bar} of the chorus on the neck`"
      :spacing="27"
    />
    <p v-if="problem" class="problem" role="alert">
      <span>{{ signs(problem) }}</span>
      <button type="button" class="chip" @click="problem = ''">Close</button>
    </p>
    <SaveNotice v-if="document" :document="document" what="solo" @kept-as-new="keeping.open" />
    <div class="bench">
      <BenchTabs :tabs="benches" :chosen="bench" @choose="show">
        <ChorusChips
          :count="solo?.choruses.length ?? 0"
          :at="at"
          @go="goToChorus"
          @more="work.again(true)"
          @whole="work.planWhole()"
          @move="work.moveChorus"
          @remove="work.removeChorus()"
        />
      </BenchTabs>
      <div role="tabpanel" :aria-label="benches.find((one) => one.name === bench)?.title">
        <template v-if="shown">
          <BlockTools v-if="bench === 'line' && writing === undefined" :blocks="blocks" :bar="bar">
            <GrowTools :growing="growing" />
          </BlockTools>
          <NotesPanel
            v-if="bench === 'line' && writing !== undefined && shown.blocks[writing]"
            :view="shown"
            :block="shown.blocks[writing]!"
            :sounding="undefined"
            :writer="blocks.notesWriter"
            @close="writing = undefined"
          />
          <TimeLine
            v-else-if="bench === 'line'"
            :view="shown"
            :bar="bar"
            :played="played"
            :chords="chords"
            :strings="tune.map.instrument.strings"
            :blend="blend"
            :step="shown.step"
            :selected="selected"
            :chosen="chosen"
            :marked="marked"
            :sounding="sounding"
            @select="select"
            @pick="pick"
            @move="blocks.move"
            @stretch="blocks.stretch"
            @blend="drawBlend"
          />
          <PlanPanel
            v-else-if="bench === 'plan'"
            :plan="plan"
            :bar="bar"
            :tags="tags"
            @plan="work.planAgain"
          />
          <VerdictBench
            v-else-if="bench === 'verdict'"
            :view="shown"
            :preview="work.preview"
            @mark="mark"
            @go="goToTick"
            @repair="work.edit"
          />
          <AlternativesPanel
            v-else-if="bench === 'alternatives'"
            :all="comparing.alternatives.value"
            :strings="tune.map.instrument.strings"
            :bar="bar"
            act="Take"
            @take="work.takeAlternative"
            @hear="(n) => playing.hear(comparing.alternatives.value[n]?.view)"
          />
          <AlternativesPanel
            v-else-if="bench === 'compare'"
            :all="comparing.choruses.value"
            :strings="tune.map.instrument.strings"
            :bar="bar"
            act="Go to"
            @take="(n) => goToChorus(n + 1)"
            @hear="(n) => playing.hear(comparing.choruses.value[n]?.view)"
          />
        </template>
        <KeepPanel v-if="bench === 'keep'" :work="work" :keeping="keeping" />
        <WhyLine
          v-if="shown"
          :work="work"
          :event="sounding ?? chosen"
          :online="bench === 'line' && writing === undefined"
        />
        <FigureRow v-if="shown" :view="shown" @mark="mark">
          <HearTools
            :part="part"
            :dropped="dropped"
            @part="(one) => query.set({ hear: one })"
            @drop="playing.drop"
            @again="work.again()"
          />
        </FigureRow>
      </div>
    </div>
  </section>
  <p v-else class="quiet opening">Opening the solos…</p>
</template>

<style scoped>
.bench {
  margin-top: 4px;
  padding: 0.5rem 1rem 0.5rem;
}
.problem {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  padding: 0.35rem 0.8rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.problem span {
  flex: 1;
}
.opening {
  padding: 2rem 0;
}
</style>
