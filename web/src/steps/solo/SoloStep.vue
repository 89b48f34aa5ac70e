<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import { useView } from '../../address/view'
import { useAnswer } from '../../api/ask'
import BenchTabs from '../../controls/BenchTabs.vue'
import { hearingOnStrip } from '../../controls/formstrip'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useLicks } from '../../document/licks'
import SaveNotice from '../../document/SaveNotice.vue'
import { useTune } from '../../document/tune'
import { useUndoable } from '../../document/undo'
import NeckView from '../../neck/NeckView.vue'
import { useSource } from '../../sound/player'
import { benches, useSoloQuery, type Bench } from './address'
import AlternativesPanel from './AlternativesPanel.vue'
import { useBlocks } from './blocks'
import BlockTools from './BlockTools.vue'
import ChorusChips from './ChorusChips.vue'
import FigureRow from './FigureRow.vue'
import HearTools from './HearTools.vue'
import { useKeeping } from './keeping'
import KeepPanel from './KeepPanel.vue'
import { blendOf, chorusMarks, heardByMoment, rowOf, sentenceOf } from './looks'
import NotesPanel from './NotesPanel.vue'
import PlanPanel from './PlanPanel.vue'
import { usePlaying } from './playing'
import TimeLine from './TimeLine.vue'
import VerdictBench from './VerdictBench.vue'
import { useSolo } from './work'

const tune = useTune()
const view = useView()
const licks = useLicks()
const query = useSoloQuery()
const work = useSolo(query)
const keeping = useKeeping(work, query)
const { document, solo, shown, chorus, plan, alternatives, problem, said, concessions, notStayed, at } = work
useUndoable(() => document.value)

const { bench } = query
const show = (name: Bench) => query.set({ bench: name })
const turn = (name: Bench) => void show(bench.value === name ? 'line' : name)

const bars = computed(() => tune.read?.moments.at(-1)?.bar ?? 1)
const bar = computed(() => view.moment.value?.bar ?? 1)
const barTicks = computed(() => shown.value?.tab.barTicks ?? 0)
const chords = computed(() => (tune.read?.moments ?? []).map((m) => ({ tick: m.tick, chord: m.chord })))
const blend = computed(() => blendOf(plan.value.blend, bars.value, tune.choices?.blend ?? 0.5))
const tags = computed(() => [...new Set(licks.readable.flatMap((l) => l.lick.tags ?? []))].sort())

// What is pointed at: a block, a note, the notes of a figure.
const blocks = useBlocks(work, { onLine: () => bench.value === 'line', bar, chords, goToTick })
const { selected, writing } = blocks
const chosen = ref<number>()
const marked = ref<number[]>([])
function forget() {
  chosen.value = undefined
  marked.value = []
}
watch(at, forget)
watch(shown, (now, before) => {
  if (now && before && now.tab.events.length !== before.tab.events.length) forget()
})
function pick(event: number) {
  chosen.value = event
  selected.value = shown.value?.in[event]
  goToTick(shown.value?.tab.events[event]?.tick ?? 0)
}
/** Chooses a block; the bar it begins in is the one under work. */
function select(index: number) {
  selected.value = index
  goToTick(Math.max(shown.value?.blocks[index]?.start ?? 0, (rowOf(bar.value) - 1) * barTicks.value))
}
function goToTick(tick: number) {
  const moment = tune.read?.moments.findLast((m) => m.tick <= Math.max(tick, 0))
  if (moment) void view.goTo(moment)
}
function goToBar(n: number) {
  const moment = tune.read?.moments.find((m) => m.bar === n)
  if (moment) void view.goTo(moment)
}

// The form strip says which chords are heard without the band.
watchEffect(() => {
  hearingOnStrip.value = shown.value && heardByMoment(shown.value, tune.read?.moments ?? [])
})
onBeforeUnmount(() => (hearingOnStrip.value = undefined))

const playing = usePlaying(work, query, { bar, bars, goToBar })
const { part, dropped, sounding } = playing
useSource('solo', () => playing.source())
const marks = computed(() => chorusMarks(shown.value, bar.value, sounding.value ?? chosen.value))

// Where the hand stands there, or where the player looks. Looking elsewhere plans nothing.
const planned = computed(() => {
  const shift = [...(plan.value.shifts ?? [])].reverse().find((s) => s.bar <= bar.value)
  const wanted = shift?.position ?? plan.value.position
  return tune.map?.positions.find((p) => p.name === wanted || p.id === wanted)
})
const looked = computed(() => (view.wanted.value ? view.position.value : undefined))
const neckSpan = computed(() => looked.value ?? planned.value ?? view.position.value!)
/** The position to plan in instead, where the player looks at another than the plan's. */
const elsewhere = computed(() =>
  looked.value && planned.value && looked.value.id !== planned.value.id ? looked.value : undefined,
)
const planHere = () => elsewhere.value && work.planAgain({ position: elsewhere.value.name })

const why = computed(() => shown.value?.tab.events[sounding.value ?? chosen.value ?? -1]?.why)
const firstRepair = computed(() => shown.value?.mend.find((c) => c.repairs.length))
function repair() {
  const first = firstRepair.value?.repairs[0]
  if (first) void work.edit(first.edit)
}
/** Writes the notes of the block, on the time line. */
function write() {
  void show('line')
  blocks.toggleWriting()
}
const drawBlend = (values: number[]) => void work.planAgain({ blend: values }, false, 'blend')

// Growing and thinning.
const stages = computed(() => tune.choices?.stages ?? [])
const stage = computed(() => {
  const now = stages.value.indexOf(chorus.value?.stage ?? '')
  return now < 0 ? stages.value.length - 1 : now
})
function grow(by: number) {
  const next = Math.min(Math.max(stage.value + by, 0), stages.value.length - 1)
  const whole = next === stages.value.length - 1
  if (next !== stage.value)
    void work.set({ stage: whole ? undefined : stages.value[next] }, by > 0 ? 'grow it' : 'thin it')
}

// Alternatives of one seed, and the choruses of the solo beside each other.
const options = computed(() =>
  alternatives.value.map((one, n) => ({
    ...{ name: `chorus ${'ABC'[n] ?? n + 1}`, view: one },
    now: JSON.stringify(one.blocks) === JSON.stringify(chorus.value?.blocks),
  })),
)
const { answer: others } = useAnswer(
  () => (bench.value === 'compare' && solo.value ? { solo: solo.value, music: tune.music } : undefined),
  ({ solo: of }, signal) => Promise.all(of.choruses.map((c) => work.viewOf(c, signal))),
)
const compared = computed(() =>
  (others.value ?? []).map((one, n) => ({ name: `chorus ${n + 1}`, view: one, now: n === at.value })),
)
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
  { key: 'h', says: 'plan it here, in the position that is looked at', run: () => void planHere() },
  { key: '+', says: 'grow the chorus', run: () => grow(1) },
  { key: '-', says: 'thin it', run: () => grow(-1) },
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
    <p class="says">
      <template v-if="shown">
        <strong
          >Drop the band: {{ shown.figures.heard }} of {{ shown.figures.chords }} chords still say their
          name.</strong
        >
        <span class="first">{{ signs(sentenceOf(shown)) }}</span>
        <span v-if="elsewhere" class="chips">
          <button type="button" class="chip" title="Plan it here (h)" @click="planHere">
            Plan it in the {{ elsewhere.says }}
          </button>
          <button type="button" class="chip" @click="view.stand('')">Back to the plan’s</button>
        </span>
        <button
          v-else-if="firstRepair"
          type="button"
          class="chip"
          :title="`${signs(firstRepair.repairs[0]?.says ?? '')} (f)`"
          @click="repair"
        >
          Repair
        </button>
      </template>
      <template v-else-if="!document">
        <strong>No solo over this tune yet.</strong>
        <span>Plan a chorus: your licks, with a chord tone where each chord arrives.</span>
        <button type="button" class="primary" @click="work.begin()">Plan a chorus</button>
      </template>
    </p>
    <NeckView
      :instrument="tune.map.instrument"
      :span="neckSpan"
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
          @move="work.moveChorus"
          @remove="work.removeChorus()"
        />
      </BenchTabs>
      <template v-if="shown">
        <BlockTools v-if="bench === 'line' && writing === undefined" :blocks="blocks" :bar="bar">
          <span class="stage" role="group" aria-label="How far it is grown">
            <button type="button" class="chip" aria-label="Thin it" :disabled="stage === 0" @click="grow(-1)">
              −
            </button>
            <span class="quiet">{{ stages[stage] }}</span>
            <button
              type="button"
              class="chip"
              aria-label="Grow it"
              :disabled="stage === stages.length - 1"
              @click="grow(1)"
            >
              +
            </button>
          </span>
        </BlockTools>
        <NotesPanel
          v-if="bench === 'line' && writing !== undefined && shown.blocks[writing]"
          :view="shown"
          :block="shown.blocks[writing]!"
          :sounding="undefined"
          @write="blocks.written"
          @close="writing = undefined"
        />
        <TimeLine
          v-else-if="bench === 'line'"
          :view="shown"
          :bar="bar"
          :bars="bars"
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
        <PlanPanel v-else-if="bench === 'plan'" :plan="plan" :bar="bar" :tags="tags" @plan="work.planAgain" />
        <VerdictBench
          v-else-if="bench === 'verdict'"
          :view="shown"
          :preview="work.preview"
          @mark="(events) => (marked = events)"
          @go="goToTick"
          @repair="work.edit"
        />
        <AlternativesPanel
          v-else-if="bench === 'alternatives'"
          :all="options"
          :strings="tune.map.instrument.strings"
          :bar="bar"
          act="Take"
          @take="work.takeAlternative"
          @hear="(n) => playing.hear(options[n]?.view)"
        />
        <AlternativesPanel
          v-else-if="bench === 'compare'"
          :all="compared"
          :strings="tune.map.instrument.strings"
          :bar="bar"
          act="Go to"
          @take="(n) => goToChorus(n + 1)"
          @hear="(n) => playing.hear(compared[n]?.view)"
        />
      </template>
      <KeepPanel v-if="bench === 'keep'" :work="work" :keeping="keeping" />
      <p v-if="shown" class="why" role="status">
        <template v-if="why">{{ signs(why) }}</template>
        <template v-else-if="said">{{ signs(said) }}.</template>
        <template v-else-if="notStayed.length">
          With the tune: {{ signs(notStayed.map((c) => c.says).join('; ')) }}.
        </template>
        <template v-else-if="concessions.length">{{ signs(concessions.join('. ')) }}.</template>
        <span v-else class="quiet">
          Every note says why it is there: click one. On a block ← → moves it, ⇧ ← → its end.
        </span>
      </p>
      <FigureRow v-if="shown" :view="shown" @mark="(events) => (marked = events)">
        <HearTools
          :part="part"
          :dropped="dropped"
          @part="(one) => query.set({ hear: one })"
          @drop="playing.drop"
          @again="work.again()"
        />
      </FigureRow>
    </div>
  </section>
  <p v-else class="quiet opening">Opening the solos…</p>
</template>

<style scoped>
.first {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.says .chip,
.says .primary,
.says .chips {
  margin-left: auto;
  flex: none;
}
.says .chips {
  display: flex;
  gap: 6px;
}
.says strong {
  white-space: nowrap;
}
.bench {
  margin-top: 4px;
  padding: 0.5rem 1rem 0.5rem;
}
.stage {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
  font-size: 0.9rem;
}
.why {
  min-height: 1.4em;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  margin: 2px 0;
  font-size: 0.95rem;
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
