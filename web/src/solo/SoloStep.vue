<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, watch, watchEffect } from 'vue'
import type { ChorusView } from '../api/client'
import { lineMarks, type Mark } from '../neck/marks'
import NeckView from '../neck/NeckView.vue'
import BenchTabs from '../shell/BenchTabs.vue'
import PillSelect from '../shell/PillSelect.vue'
import { usePlayer, useSource } from '../sound/player'
import { speeds } from '../sound/speeds'
import { useKeys } from '../tune/keys'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useOwnUndoing } from '../tune/undoing'
import { useView } from '../tune/view'
import AlternativesPanel from './AlternativesPanel.vue'
import FigureRow from './FigureRow.vue'
import { useBlocks } from './blocks'
import BlockTools from './BlockTools.vue'
import { hearing } from './hearing'
import KeepPanel from './KeepPanel.vue'
import NotesPanel from './NotesPanel.vue'
import PlanPanel from './PlanPanel.vue'
import { usePlaying } from './playing'
import TimeLine from './TimeLine.vue'
import VerdictBench from './VerdictBench.vue'
import { useSolo } from './work'

const tune = useTune()
const view = useView()
const player = usePlayer()
const work = useSolo()
const { solo, shown, chorus, plan, licks, alternatives, problem, said, gave, at } = work

useOwnUndoing(() => ({
  undo: work.undo,
  redo: work.redo,
  canUndo: work.canUndo.value,
  canRedo: work.canRedo.value,
  saveState: work.saveState.value,
}))

const benches = [
  { name: 'line', title: 'Time line' },
  { name: 'plan', title: 'Plan' },
  { name: 'verdict', title: 'Verdict' },
  { name: 'alternatives', title: '3 alternatives' },
  { name: 'compare', title: 'Compare' },
  { name: 'keep', title: 'Keep' },
] as const
type Bench = (typeof benches)[number]['name']
const bench = computed<Bench>(() => benches.find((b) => b.name === view.text('bench'))?.name ?? 'line')
const show = (name: Bench) => view.set({ bench: name === 'line' ? undefined : name })
const turn = (name: Bench) => void show(bench.value === name ? 'line' : name)

const bars = computed(() => tune.read?.moments.at(-1)?.bar ?? 1)
const bar = computed(() => view.moment.value?.bar ?? 1)
const barTicks = computed(() => shown.value?.tab.barTicks ?? 0)
const chords = computed(() => (tune.read?.moments ?? []).map((m) => ({ tick: m.tick, chord: m.chord })))
const blend = computed(() => {
  const own = plan.value.blend ?? []
  const one = own.length === 1 ? own[0] : tune.choices?.blend
  return Array.from({ length: bars.value }, (_, n) => (own.length > 1 ? own[n] : one) ?? 0.5)
})
const tags = computed(() => [...new Set(licks.value.flatMap((l) => l.lick.tags ?? []))].sort())

// What is pointed at: a block, a note, the notes of a figure.
const blocks = useBlocks(work, { onLine: () => bench.value === 'line', bar, chords, goToTick })
const { selected, writing } = blocks
const chosen = ref<number>()
const marked = ref<number[]>([])
watch(shown, (now, before) => {
  if (now && before && now.tab.events.length !== before.tab.events.length) {
    chosen.value = undefined
    marked.value = []
  }
})
watch(at, () => {
  chosen.value = undefined
  marked.value = []
})
function pick(event: number) {
  chosen.value = event
  selected.value = shown.value?.in[event]
  goToTick(shown.value?.tab.events[event]?.tick ?? 0)
}
/** Chooses a block; the bar it begins in is the one under work. */
function select(index: number) {
  selected.value = index
  const row = Math.floor((bar.value - 1) / 4) * 4
  const start = shown.value?.blocks[index]?.start ?? 0
  goToTick(Math.max(start, row * barTicks.value))
}
function goToTick(tick: number) {
  const moment = tune.read?.moments.findLast((m) => m.tick <= Math.max(tick, 0))
  if (moment) void view.goTo(moment)
}
/** Goes to a bar, so that the time line shows it. */
function goToBar(n: number) {
  const moment = tune.read?.moments.find((m) => m.bar === n)
  if (moment) void view.goTo(moment)
}

// The form strip says which chords are heard without the band.
watchEffect(() => {
  const all = shown.value?.dropped
  if (!all) {
    hearing.value = undefined
    return
  }
  const map = new Map<number, { hearing: string; says: string }>()
  for (const m of tune.read?.moments ?? []) {
    const d = all.find((one) => one.tick <= m.tick && m.tick < one.tick + one.ticks)
    map.set(
      m.tick,
      d
        ? { hearing: d.hearing, says: d.says }
        : { hearing: 'nothing', says: `nothing is played over ${m.chord}` },
    )
  }
  hearing.value = map
})
onBeforeUnmount(() => (hearing.value = undefined))

const sentence = computed(() => {
  const v = shown.value
  if (!v) return ''
  const first = v.mend[0]
  return first ? first.says : (v.lively.find((f) => f.name === 'motif' && f.good)?.says ?? '')
})
const firstRepair = computed(() => shown.value?.mend.find((c) => c.repairs.length))

const playing = usePlaying(work, { bar, bars, goToBar })
const { parts, part, dropped, sounding, drop, hear } = playing
useSource(() => playing.source())

const marks = computed<Mark[]>(() => {
  const events = shown.value?.tab.events ?? []
  const first = Math.floor((bar.value - 1) / 4) * 4
  const inBar = events
    .map((event, index) => ({ event, index }))
    .filter(
      ({ event }) =>
        event.tick >= (bar.value - 1) * barTicks.value && event.tick < bar.value * barTicks.value,
    )
  const some = inBar.length
    ? inBar
    : events
        .map((event, index) => ({ event, index }))
        .filter(
          ({ event }) => event.tick >= first * barTicks.value && event.tick < (first + 4) * barTicks.value,
        )
  return lineMarks(
    some.map((one) => one.event),
    some.findIndex((one) => one.index === (sounding.value ?? chosen.value)),
  )
})
const neckSpan = computed(() => {
  const home = view.position.value!
  const shift = [...(plan.value.shifts ?? [])].reverse().find((s) => s.bar <= bar.value)
  const wanted = shift?.position ?? plan.value.position
  return tune.map?.positions.find((p) => p.id === wanted) ?? home
})
// A solo is looked at where it was planned; another position chosen above is one to plan in.
watch(
  () => plan.value.position,
  (planned) => {
    if (chorus.value && planned && !view.text('pos')) void view.set({ pos: planned })
  },
)
watch(
  () => view.position.value?.id,
  (now, before) => {
    if (now && before && chorus.value && now !== plan.value.position) void work.planAgain({ position: now })
  },
)

const why = computed(() => shown.value?.tab.events[sounding.value ?? chosen.value ?? -1]?.why)

/** Draws the blend of one bar. */
function drawBlend(n: number, value: number) {
  const next = [...blend.value]
  next[n - 1] = value
  void work.planAgain({ blend: next })
}
const again = () => work.planAgain({ seed: (plan.value.seed ?? 0) + 1 })
const oneMore = () => work.planAgain({ seed: (plan.value.seed ?? 0) + 1 }, true)
function repair() {
  const first = firstRepair.value?.repairs[0]
  if (first) void work.edit(first.edit)
}

/** Writes the notes of the block, on the time line. */
function write() {
  if (bench.value !== 'line') void show('line')
  blocks.toggleWriting()
}

// Growing and thinning.
const stages = computed(() => tune.choices?.stages ?? [])
const stage = computed(() => {
  const now = stages.value.indexOf(chorus.value?.stage ?? '')
  return now < 0 ? stages.value.length - 1 : now
})
function grow(by: number) {
  const next = Math.min(Math.max(stage.value + by, 0), stages.value.length - 1)
  if (next !== stage.value)
    void work.set({ stage: next === stages.value.length - 1 ? undefined : stages.value[next] })
}

// Alternatives of one seed, and the choruses of the solo beside each other.
const options = computed(() =>
  alternatives.value.map((one, n) => ({
    name: `chorus ${'ABC'[n] ?? n + 1}`,
    view: one,
    now: JSON.stringify(one.blocks) === JSON.stringify(chorus.value?.blocks),
  })),
)
const others = shallowRef<ChorusView[]>([])
watch(
  () => (bench.value === 'compare' ? solo.value : undefined),
  async (now) => {
    if (!now || !tune.chart) return
    try {
      others.value = await Promise.all(now.choruses.map((c) => work.viewOf(c)))
    } catch (error) {
      tune.tell(error)
    }
  },
  { immediate: true },
)
const compared = computed(() =>
  others.value.map((one, n) => ({ name: `chorus ${n + 1}`, view: one, now: n === at.value })),
)
const goToChorus = (n: number) => view.set({ chorus: n === 0 ? undefined : String(n + 1) })

useKeys([
  { key: 'p', says: 'plan again, what is locked stays', run: () => void again() },
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
  { key: 'd', says: 'drop the band', run: drop },
  { key: '+', says: 'grow the chorus', run: () => grow(1) },
  { key: '-', says: 'thin it', run: () => grow(-1) },
  { key: 'v', says: 'the verdict', run: () => turn('verdict') },
  { key: 'w', says: 'the plan', run: () => turn('plan') },
  { key: 'a', says: 'the three alternatives', run: () => turn('alternatives') },
  { key: 'c', says: 'compare the choruses', run: () => turn('compare') },
  { key: 'k', says: 'keep: solos, versions, files', run: () => turn('keep') },
  {
    key: 'j',
    says: 'one more chorus',
    run: () => void oneMore(),
  },
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
        <span class="first">{{ signs(sentence) }}</span>
        <button
          v-if="firstRepair"
          type="button"
          class="chip"
          :title="`${signs(firstRepair.repairs[0]?.says ?? '')} (f)`"
          @click="repair"
        >
          Repair
        </button>
      </template>
      <template v-else-if="!solo">
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
      <template v-if="work.saveState.value === 'elsewhere'">
        <button type="button" class="chip" @click="work.open(work.id.value)">Show what was saved</button>
        <button type="button" class="chip" @click="work.keepAsNew()">Keep mine as a new solo</button>
      </template>
      <button v-else type="button" class="chip" @click="problem = ''">Close</button>
    </p>
    <div class="bench">
      <BenchTabs :tabs="benches" :chosen="bench" @choose="show">
        <span class="choruses" role="group" aria-label="Choruses">
          <button
            v-for="(_, n) in solo?.choruses ?? []"
            :key="n"
            type="button"
            class="chip"
            :aria-pressed="n === at"
            :aria-label="`Chorus ${n + 1}`"
            @click="goToChorus(n)"
          >
            {{ n + 1 }}
          </button>
          <button v-if="solo" type="button" class="chip" title="One more chorus (j)" @click="oneMore()">
            + chorus
          </button>
          <template v-if="(solo?.choruses.length ?? 0) > 1">
            <button
              type="button"
              class="chip"
              aria-label="Chorus earlier"
              title="This chorus earlier"
              @click="work.moveChorus(-1)"
            >
              ←
            </button>
            <button
              type="button"
              class="chip"
              aria-label="Chorus later"
              title="This chorus later"
              @click="work.moveChorus(1)"
            >
              →
            </button>
            <button
              type="button"
              class="chip"
              aria-label="Take the chorus out"
              title="Take this chorus out"
              @click="work.removeChorus()"
            >
              ×
            </button>
          </template>
        </span>
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
          @hear="(n) => hear(options[n]?.view)"
        />
        <AlternativesPanel
          v-else-if="bench === 'compare'"
          :all="compared"
          :strings="tune.map.instrument.strings"
          :bar="bar"
          act="Go to"
          @take="goToChorus"
          @hear="(n) => hear(compared[n]?.view)"
        />
      </template>
      <KeepPanel v-if="bench === 'keep'" :work="work" />
      <p v-if="shown" class="why" role="status">
        <template v-if="why">{{ signs(why) }}</template>
        <template v-else-if="said">{{ signs(said) }}.</template>
        <template v-else-if="gave.length">{{ signs(gave.join('. ')) }}.</template>
        <span v-else class="quiet">
          Every note says why it is there: click one. On a block ← → moves it, ⇧ ← → its end.
        </span>
      </p>
      <FigureRow v-if="shown" :view="shown" @mark="(events) => (marked = events)">
        <li class="acts">
          <PillSelect
            label="What is heard"
            :chosen="part"
            :options="parts"
            @choose="(hear) => view.set({ hear: hear === 'chorus' ? undefined : hear })"
          />
          <button type="button" class="chip" :aria-pressed="dropped" title="Drop the band (d)" @click="drop">
            drop the band
          </button>
          <button type="button" class="chip" :aria-pressed="player.loop" @click="player.loop = !player.loop">
            loop
          </button>
          <PillSelect
            label="Speed"
            :chosen="String(player.speed)"
            :options="speeds"
            @choose="(one) => (player.speed = Number(one))"
          />
          <button
            type="button"
            class="primary"
            title="Another seed; what is locked stays (p)"
            @click="again()"
          >
            Plan again
          </button>
        </li>
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
.says .primary {
  margin-left: auto;
  flex: none;
}
.says strong {
  white-space: nowrap;
}
.bench {
  margin-top: 4px;
  padding: 0.5rem 1rem 0.5rem;
}
.choruses {
  display: flex;
  align-items: center;
  gap: 4px;
  margin-left: auto;
}
.choruses .chip,
.tools .chip {
  padding: 0.1rem 0.65rem;
  font-size: 0.9rem;
}
.tools {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 30px;
  margin-bottom: 2px;
}
.tools .name {
  min-width: 9.5rem;
  max-width: 15rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.hint {
  min-width: 9.5rem;
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
.acts {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
}
.acts .primary {
  padding: 0.4rem 1rem;
}
.acts .chip {
  padding: 0.18rem 0.65rem;
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
