<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { answer, client, type KeptLick, type Lick, type Place } from '../api/client'
import { samePlace } from '../neck/geometry'
import { emptyMarks, lineMarks, toneMark, type Mark } from '../neck/marks'
import NeckView from '../neck/NeckView.vue'
import BenchTabs from '../shell/BenchTabs.vue'
import PillSelect from '../shell/PillSelect.vue'
import { usePlayer, useSource } from '../sound/player'
import { useKeys } from '../tune/keys'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'
import BringPanel from './BringPanel.vue'
import { useCursor } from './cursor'
import { useElsewhere } from './elsewhere'
import ElsewherePanel from './ElsewherePanel.vue'
import { useFinding } from './finding'
import { useJoining } from './joining'
import JoinPanel from './JoinPanel.vue'
import LeadPanel from './LeadPanel.vue'
import { useLine } from './line'
import MovePanel from './MovePanel.vue'
import { useMoves } from './moves'
import ShelfPanel from './ShelfPanel.vue'
import { asEvent, heard } from './tab'
import { useVerdict } from './verdict'
import VerdictPanel from './VerdictPanel.vue'
import WritePanel from './WritePanel.vue'
import { useWriting } from './writing'

const tune = useTune()
const view = useView()
const player = usePlayer()
const work = useLine()
const { licks, entries, targets, line, lick, opened, openId, approach, subdivision, subdivisions } = work

onMounted(work.load)

/** What is done with the lick. */
const doings = [
  { name: 'lead', title: 'Lead' },
  { name: 'write', title: 'Write' },
  { name: 'verdict', title: 'Understand' },
  { name: 'move', title: 'Every chord' },
  { name: 'elsewhere', title: 'Elsewhere' },
  { name: 'join', title: 'Cut and join' },
] as const
type Doing = (typeof doings)[number]['name'] | 'bring'
const doing = computed<Doing>(() => {
  if (opened.value) return 'lead'
  if (view.text('do') === 'bring') return 'bring'
  return doings.find((d) => d.name === view.text('do'))?.name ?? 'lead'
})
const doingIs = (name: Doing) => () => doing.value === name
const show = (name: Doing | undefined) => view.set({ do: name === 'lead' ? undefined : name })
const turn = (name: Doing) => void show(doing.value === name ? 'lead' : name)

const fresh = computed(() => doing.value === 'write' && view.text('lick') === 'new')
const moves = useMoves(() => lick.value, doingIs('move'), work.load)
const { chosen: moved, choice: movedTo } = moves
const judged = useVerdict(() => lick.value, doingIs('verdict'))
const { verdict } = judged
const elsewhere = useElsewhere(() => lick.value, doingIs('elsewhere'))
const joining = useJoining(
  () => lick.value,
  () => licks.value,
  doingIs('join'),
)
const finding = useFinding(() => licks.value)
const writing = useWriting(
  () => (fresh.value ? undefined : lick.value),
  () => doing.value === 'write' && (fresh.value || lick.value !== undefined),
  (kept, open) => {
    const known = licks.value.some((l) => l.id === kept.id)
    licks.value = known ? licks.value.map((l) => (l.id === kept.id ? kept : l)) : [...licks.value, kept]
    // A new lick, or one kept beside that of another window, is looked at from now on.
    if (open && doing.value === 'write' && !known) void view.set({ lick: String(kept.id) })
  },
)
const cursor = useCursor(writing)
const panel = ref<InstanceType<typeof WritePanel>>()
const shelf = ref<InstanceType<typeof ShelfPanel>>()

/** The tab that is on the desk, but for a line led over the change and what is written. */
const tab = computed(() => {
  switch (doing.value) {
    case 'move':
      return moved.value?.tab
    case 'verdict':
      return verdict.value?.tab
    case 'elsewhere':
      return elsewhere.chosen.value?.tab
    case 'join':
      return joining.joined.value?.tab
  }
  return undefined
})

/** Where in the lick what is heard begins, and which of its notes sounds. */
const heardFrom = ref(0)
const sounding = computed(() => (player.event === undefined ? undefined : player.event + heardFrom.value))

const marks = computed<Mark[]>(() => {
  if (doing.value === 'write') {
    const played = lineMarks(writing.written.value?.tab.events ?? [], sounding.value)
    const strings = writing.written.value?.neck.strings.length ?? 0
    const under = (m: Mark) =>
      cursor.here.value?.string === m.string && cursor.here.value.fret === m.fret ? { ...m, chosen: true } : m
    return [...emptyMarks(strings, neckSpan.value, played), ...played.map(under)]
  }
  if (doing.value !== 'lead') return lineMarks(tab.value?.events ?? [], player.event)
  const played = line.value ? lineMarks(line.value.events, player.event) : []
  if (opened.value) return played
  const taken = new Set(played.map((m) => `${m.string}:${m.fret}`))
  const others = targets.value
    .filter((tone) => !taken.has(`${tone.string}:${tone.fret}`))
    .map((tone) => ({
      ...toneMark(tone, 'ghost'),
      root: false,
      small: undefined,
      spoken: `land on ${tone.spoken}`,
    }))
  return [...played, ...others]
})

/** The position, or where what is shown lies outside it the frets that it lies on. */
const neckSpan = computed(() => {
  const here = view.position.value!
  const lies =
    doing.value === 'move'
      ? moved.value
      : doing.value === 'elsewhere'
        ? elsewhere.chosen.value
        : doing.value === 'write'
          ? writing.written.value
          : undefined
  const { low, high } = lies ?? here
  if (!high || (low >= here.low && high <= here.high)) return here
  const last = Math.max(high, low + 3)
  return { low: Math.max(low - 1, 0), core: low, coreEnd: last, high: last + 1 }
})
const inOtherKey = computed(
  () => opened.value && opened.value.chart.chart.key.tonic !== tune.chart?.key.tonic,
)

const targetText = (place: Place) => `${place.string}:${place.fret}`
const isTarget = (tone: Place) => (view.target.value ? samePlace(tone, view.target.value) : false)

/** A place of the neck: written at the cursor, or landed on. */
function pick(place: Place) {
  if (doing.value === 'write') {
    cursor.put(place.fret, place.string)
    panel.value?.focus()
    return
  }
  if (targets.value.some((tone) => samePlace(tone, place))) void view.set({ target: targetText(place) })
}

function walk<T>(all: T[], here: T | undefined, by: number): T | undefined {
  const index = here === undefined ? -1 : all.indexOf(here)
  return all[(index + by + all.length) % all.length]
}

const choose = (one: KeptLick) => view.set({ lick: String(one.id), fix: undefined })
function walkLicks(by: number) {
  const all = finding.shown.value.map((one) => one.lick)
  const next = walk(all, lick.value, by)
  if (next) void choose(next)
}

function walkTargets() {
  const here = targets.value.find(isTarget)
  const next = here === targets.value.at(-1) ? undefined : walk(targets.value, here, 1)
  void view.set({ target: next && targetText(next) })
}

/** The lick that was deleted last, to be brought back. */
const gone = ref<KeptLick>()
async function remove() {
  const one = lick.value
  if (!one || fresh.value) return
  await writing.settled()
  const { id, version } = licks.value.find((l) => l.id === one.id) ?? one
  try {
    await answer(client.DELETE('/api/licks/{id}', { params: { path: { id }, query: { version } } }))
    gone.value = one
    await view.set({ lick: undefined, do: undefined })
    await work.load()
  } catch (error) {
    tune.tell(error)
  }
}
async function bringBack() {
  const id = gone.value?.id
  if (!id) return
  await answer(client.POST('/api/licks/{id}/restore', { params: { path: { id } } }))
  gone.value = undefined
  await work.load()
  await view.set({ lick: String(id) })
}

function takeAway(format: string) {
  const link = document.createElement('a')
  link.href = `/api/licks/${lick.value?.id}/export/${format}`
  link.download = ''
  link.click()
}

/** Keeps a lick that was brought in, and goes on writing it. */
async function keepAndWrite(own: Lick) {
  await moves.keep(own)
  if (moves.last.value) await view.set({ lick: String(moves.last.value.id), do: 'write' })
}
async function keepAll(parts: Lick[]) {
  for (const part of parts) await moves.keep(part)
  moves.said.value = `Kept ${parts.length} parts.`
}

/** What is written, or what is selected of it, over its own chords. */
function writtenSource() {
  const shown = writing.written.value
  if (!shown || shown.tab.events.length === 0) return undefined
  const { from, to } = cursor.range.value
  const chosen = cursor.selected.value
  const first = shown.tab.events.findIndex((e) => !chosen || (e.tick >= from && e.tick < to))
  const events = shown.tab.events.filter((e) => !chosen || (e.tick >= from && e.tick < to))
  if (first < 0) return undefined
  const { start, barTicks, meter } = shown.tab
  const bar = (tick: number) => Math.floor((tick + start) / barTicks)
  const begin = chosen ? bar(from) : 0
  const end = chosen ? bar(Math.max(to - 1, from)) + 1 : shown.tab.bars
  // What is not selected is not heard, and events keep their numbers.
  heardFrom.value = first
  return {
    chart: shown.chart,
    hands: { instrument: shown.instrument },
    from: begin + 1,
    bars: Math.max(end - begin, 1),
    countIn: player.loop ? 0 : 1,
    line: { meter, start, events: events.map(asEvent) },
  }
}

useSource(() => {
  if (doing.value === 'write') return writtenSource()
  if (doing.value !== 'lead') {
    const own = doing.value === 'elsewhere' ? elsewhere.chosen.value?.own : undefined
    const joined = doing.value === 'join' ? joining.joined.value?.own : undefined
    const chart = own ?? joined ?? tune.chart
    return tab.value && chart ? { chart, ...heard(tab.value) } : undefined
  }
  const shown = line.value
  const chart = opened.value?.chart.chart ?? tune.chart
  if (!shown || !chart) return undefined
  return {
    chart,
    from: shown.firstBar,
    bars: shown.bars,
    countIn: 1,
    line: { meter: shown.meter, start: shown.start, events: shown.events.map(asEvent) },
  }
})

function keep() {
  if (doing.value === 'lead') void work.keep()
  else if (doing.value === 'move') void moves.keep()
  else if (doing.value === 'elsewhere') void moves.keep(elsewhere.chosen.value?.lick)
  else if (doing.value === 'join') void moves.keep(joining.joined.value?.lick)
  else if (doing.value === 'verdict' && judged.repaired.value.length) void moves.keep(verdict.value?.lick)
}

useKeys([
  { key: 'ArrowUp', shown: '↑', says: 'the lick above', run: () => walkLicks(-1) },
  { key: 'ArrowDown', shown: '↓', says: 'the lick below', run: () => walkLicks(1) },
  { key: 't', says: 'another target', run: walkTargets },
  {
    key: 'a',
    says: 'another approach',
    run: () => void view.set({ approach: walk(tune.choices?.approaches ?? [], approach.value, 1) }),
  },
  {
    key: 's',
    says: 'another subdivision',
    run: () => void view.set({ sub: walk(subdivisions.value, subdivision.value, 1) }),
  },
  { key: 'k', says: 'keep what is shown', run: keep },
  { key: 'e', says: 'write the lick', run: () => turn('write') },
  { key: 'v', says: 'understand it', run: () => turn('verdict') },
  { key: 'r', says: 'repair the next note', run: () => judged.repairNext() },
  { key: 'm', says: 'move it to every chord', run: () => turn('move') },
  { key: 'w', says: 'have it elsewhere', run: () => turn('elsewhere') },
  { key: 'j', says: 'cut it, or join it with another', run: () => turn('join') },
  { key: '+', says: 'a new lick', run: () => void view.set({ lick: 'new', do: 'write' }) },
  { key: 'f', says: 'find licks', run: () => shelf.value?.find() },
])
</script>

<template>
  <section v-if="tune.map && view.position.value">
    <p class="says">
      <template v-if="opened">
        <span class="quiet">Kept line</span> <strong class="name">{{ signs(opened.name) }}</strong>
        <span v-if="inOtherKey" class="other">
          kept in {{ signs(opened.chart.chart.key.tonic) }}; the tune is now in
          {{ signs(tune.chart?.key.tonic ?? '') }}
        </span>
      </template>
      <template v-else-if="doing === 'bring'">
        <span class="quiet">From a file, or pasted</span> <strong class="name">A lick to bring in</strong>
      </template>
      <template v-else-if="doing === 'write'">
        <span class="quiet">Written in {{ signs(writing.lick.value?.tonic ?? '') }}</span>
        <strong class="name">{{ signs(writing.lick.value?.name ?? '') }}</strong>
      </template>
      <template v-else>
        <span v-if="view.change.value" class="quiet"
          >Bar {{ view.change.value.leaving.bar }} → {{ view.change.value.arriving.bar }}</span
        >
        <strong class="name">{{ signs(lick?.lick.name ?? '') }}</strong>
        <span v-if="doing === 'move' && movedTo.over">
          over <strong class="arriving">{{ signs(movedTo.over.chord) }}</strong>: {{ moved?.says }}
        </span>
        <span v-else-if="doing === 'verdict' && verdict">
          over <strong class="arriving">{{ signs(verdict.coverage.map((c) => c.chord).join(', ')) }}</strong>
        </span>
        <span v-else-if="doing === 'elsewhere' && elsewhere.chosen.value">
          <strong class="arriving">{{ signs(elsewhere.chosen.value.name) }}</strong>
        </span>
        <span v-else-if="doing === 'lead' && line && view.change.value">
          into <strong class="arriving">{{ signs(line.target.note) }}</strong>, the
          {{ signs(line.target.degree) }} of {{ signs(view.change.value.arriving.chord) }}
        </span>
      </template>
    </p>
    <NeckView
      v-if="doing !== 'bring'"
      :instrument="
        doing === 'write' ? (writing.written.value?.neck ?? tune.map.instrument) : tune.map.instrument
      "
      :span="doing === 'lead' ? (line?.position ?? view.position.value) : neckSpan"
      :marks="marks"
      label="The line on the neck"
      :spacing="doing === 'write' && view.text('staff') ? 25 : 28"
      @pick="pick"
    />
    <div class="bench columns">
      <ShelfPanel
        ref="shelf"
        :finding="finding"
        :chosen="opened || fresh ? undefined : lick?.id"
        :entries="entries"
        :open-id="openId"
        @pick="choose"
        @create="view.set({ lick: 'new', do: 'write' })"
        @bring="show('bring')"
        @open="(entry) => view.set({ line: String(entry.id) })"
        @remove="work.remove"
      />
      <div class="desk">
        <BenchTabs v-if="!opened" :tabs="doings" :chosen="doing" @choose="show">
          <span role="status" class="quiet said">
            {{ signs(moves.said.value) }}
            <button v-if="moves.last.value" type="button" class="chip" @click="moves.takeBack()">
              Take it back
            </button>
            <button v-if="gone" type="button" class="chip" @click="bringBack">
              Bring {{ signs(gone.lick.name) }} back
            </button>
          </span>
          <template v-if="doing === 'write' && !fresh && lick">
            <PillSelect
              label="Take it away as"
              placeholder="take away"
              :chosen="undefined"
              :options="(tune.choices?.lickFormats ?? []).map((f) => ({ value: f.name, text: f.title }))"
              @choose="takeAway"
            />
            <button type="button" class="chip" @click="remove">Delete</button>
          </template>
        </BenchTabs>
        <BringPanel v-if="doing === 'bring'" @keep="keepAndWrite" />
        <WritePanel
          v-else-if="doing === 'write'"
          ref="panel"
          :writing="writing"
          :cursor="cursor"
          :sounding="sounding"
          @keep-as-new="writing.keepAsNew()"
        />
        <MovePanel v-else-if="doing === 'move'" :work="moves" />
        <VerdictPanel v-else-if="doing === 'verdict'" :work="judged" @keep="moves.keep(verdict?.lick)" />
        <ElsewherePanel
          v-else-if="doing === 'elsewhere'"
          :work="elsewhere"
          @keep="moves.keep(elsewhere.chosen.value?.lick)"
        />
        <JoinPanel
          v-else-if="doing === 'join' && lick"
          :work="joining"
          :lick="lick"
          :licks="licks"
          @keep="moves.keep"
          @keep-all="keepAll"
        />
        <p v-else-if="!view.change.value">
          This tune stays on one chord, so there is no change to land on. Give it a scheme above.
        </p>
        <LeadPanel v-else :work="work" @land="pick" @near="finding.askNear" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.name {
  font-size: 1.2rem;
  color: var(--now);
}
.arriving {
  font-size: 1.2rem;
  color: var(--next);
}
.other {
  color: var(--next);
}
.columns {
  display: grid;
  grid-template-columns: 15.5rem 1fr;
  gap: 1.3rem;
  padding: 0.7rem 1.1rem 0.8rem 0.7rem;
}
.desk {
  min-width: 0;
}
.said {
  margin-left: auto;
}
</style>
