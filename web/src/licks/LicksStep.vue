<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import type { Place, Target } from '../api/client'
import { samePlace } from '../neck/geometry'
import { lineMarks, toneMark, type Mark } from '../neck/marks'
import NeckView from '../neck/NeckView.vue'
import { usePlayer, useSource } from '../sound/player'
import { useKeys } from '../tune/keys'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'
import ChipRow from './ChipRow.vue'
import { useLine } from './line'
import MovePanel from './MovePanel.vue'
import { useMoves } from './moves'
import { useVerdict } from './verdict'
import VerdictPanel from './VerdictPanel.vue'
import BenchTabs from '../shell/BenchTabs.vue'
import PillSelect from '../shell/PillSelect.vue'
import { named } from '../shell/options'
import { asEvent, heard } from './tab'
import TabView from './TabView.vue'

const tune = useTune()
const view = useView()
const player = usePlayer()
const work = useLine()
const { licks, entries, targets, line, lick, opened, openId, approach, subdivision, subdivisions } = work
const { refusal, nearest, said, deleted } = work

onMounted(work.load)

/** What is done with the lick: led over the change, moved to every chord, or understood. */
const doings = [
  { name: 'lead', title: 'Lead it over the change' },
  { name: 'move', title: 'Move it to every chord' },
  { name: 'verdict', title: 'Understand it' },
] as const
const doing = computed(() =>
  opened.value ? 'lead' : (doings.find((d) => d.name === view.text('do'))?.name ?? 'lead'),
)
const moves = useMoves(
  () => lick.value,
  () => doing.value === 'move',
  work.load,
)
const { chosen: moved, choice: movedTo } = moves
const judged = useVerdict(
  () => lick.value,
  () => doing.value === 'verdict',
)
const { verdict } = judged
/** The tab that is on the desk, but for a line led over the change. */
const tab = computed(() =>
  doing.value === 'move' ? moved.value?.tab : doing.value === 'verdict' ? verdict.value?.tab : undefined,
)

const chosen = ref<number>()
watch(line, () => (chosen.value = undefined))

const marks = computed<Mark[]>(() => {
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

const kept = computed(() => opened.value)
/** The position, or where a slid shape has left it the frets that it lies on. */
const neckSpan = computed(() => {
  const here = view.position.value!
  const { low, high } = (doing.value === 'move' && moved.value) || here
  if (!high || (low >= here.low && high <= here.high)) return here
  return { low: Math.max(low - 1, 0), core: low, coreEnd: high, high: high + 1 }
})
const inOtherKey = computed(() => kept.value && kept.value.chart.chart.key.tonic !== tune.chart?.key.tonic)
const why = computed(() => line.value?.events[player.event ?? chosen.value ?? -1]?.why)
const arriving = computed(() => view.change.value?.arriving)

const targetText = (place: Place) => `${place.string}:${place.fret}`
const isTarget = (tone: Place) => (view.target.value ? samePlace(tone, view.target.value) : false)

function land(place: Place) {
  if (targets.value.some((tone) => samePlace(tone, place))) void view.set({ target: targetText(place) })
}

function walk<T>(all: T[], here: T | undefined, by: number): T | undefined {
  const index = here === undefined ? -1 : all.indexOf(here)
  return all[(index + by + all.length) % all.length]
}

function walkLicks(by: number) {
  const next = walk(licks.value, lick.value, by)
  if (next) void view.set({ lick: String(next.id), fix: undefined })
}

function walkTargets() {
  const here = targets.value.find(isTarget)
  const next = here === targets.value.at(-1) ? undefined : walk(targets.value, here, 1)
  void view.set({ target: next && targetText(next) })
}

useSource(() => {
  if (doing.value !== 'lead')
    return tab.value && tune.chart ? { chart: tune.chart, ...heard(tab.value) } : undefined
  const shown = line.value
  const chart = kept.value?.chart.chart ?? tune.chart
  if (!shown || !chart) return undefined
  return {
    chart,
    from: shown.firstBar,
    bars: shown.bars,
    countIn: 1,
    line: { meter: shown.meter, start: shown.start, events: shown.events.map(asEvent) },
  }
})

const targetName = (tone: Target) =>
  `${signs(tone.note)}, the ${signs(tone.degree)}, string ${tone.string} fret ${tone.fret}`

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
  { key: 'k', says: 'keep the line', run: () => void (doing.value === 'move' ? moves.keep() : work.keep()) },
  {
    key: 'm',
    says: 'move it to every chord',
    run: () => void view.set({ do: doing.value === 'move' ? undefined : 'move' }),
  },
  {
    key: 'v',
    says: 'understand it',
    run: () => void view.set({ do: doing.value === 'verdict' ? undefined : 'verdict' }),
  },
])
</script>

<template>
  <p v-if="!view.change.value" class="says">
    This tune stays on one chord, so there is no change to land on. Give it a scheme above.
  </p>
  <section v-else-if="tune.map && view.position.value">
    <p class="says">
      <template v-if="kept">
        <span class="quiet">Kept line</span> <strong class="name">{{ signs(kept.name) }}</strong>
        <span v-if="inOtherKey" class="other">
          kept in {{ signs(kept.chart.chart.key.tonic) }}; the tune is now in
          {{ signs(tune.chart?.key.tonic ?? '') }}
        </span>
      </template>
      <template v-else>
        <span class="quiet"
          >Bar {{ view.change.value.leaving.bar }} → {{ view.change.value.arriving.bar }}</span
        >
        <strong class="name">{{ signs(lick?.lick.name ?? '') }}</strong>
        <span v-if="doing === 'move' && movedTo.over">
          over <strong class="arriving">{{ signs(movedTo.over.chord) }}</strong>: {{ moved?.says }}
        </span>
        <span v-else-if="doing === 'verdict' && verdict">
          over <strong class="arriving">{{ signs(verdict.coverage.map((c) => c.chord).join(', ')) }}</strong>
        </span>
        <span v-else-if="line">
          into <strong class="arriving">{{ signs(line.target.note) }}</strong>, the
          {{ signs(line.target.degree) }} of
          {{ signs(view.change.value.arriving.chord) }}
        </span>
      </template>
    </p>
    <NeckView
      :instrument="tune.map.instrument"
      :span="doing === 'lead' ? (line?.position ?? view.position.value) : neckSpan"
      :marks="marks"
      label="The line on the neck"
      :spacing="28"
      @pick="land"
    />
    <div class="bench columns">
      <div class="shelf">
        <h2>Licks</h2>
        <ol aria-label="Licks">
          <li v-for="one in licks" :key="one.id">
            <button
              type="button"
              :class="{ chosen: one.id === lick?.id && !kept }"
              :aria-pressed="one.id === lick?.id"
              @click="view.set({ lick: String(one.id), fix: undefined })"
            >
              <b>{{ one.lick.name }}</b>
              <span class="quiet">{{ signs(one.lick.about) }}</span>
            </button>
          </li>
        </ol>
        <template v-if="entries.length">
          <h2>Kept lines</h2>
          <ol class="kept" aria-label="Kept lines">
            <li v-for="entry in entries" :key="entry.id">
              <button
                type="button"
                :class="{ chosen: entry.id === openId }"
                :aria-pressed="entry.id === openId"
                @click="view.set({ line: String(entry.id) })"
              >
                <b>{{ signs(entry.name) }}</b>
                <span class="quiet">in {{ signs(entry.key) }}: {{ signs(entry.over) }}</span>
              </button>
              <button
                type="button"
                class="remove"
                :aria-label="`Delete ${signs(entry.name)}`"
                @click="work.remove(entry)"
              >
                <i class="pi pi-trash" />
              </button>
            </li>
          </ol>
        </template>
      </div>

      <div class="desk">
        <BenchTabs
          v-if="!kept"
          :tabs="doings"
          :chosen="doing"
          @choose="(name) => view.set({ do: name === 'lead' ? undefined : name })"
        >
          <span role="status" class="quiet said">
            {{ signs(moves.said.value) }}
            <button v-if="moves.last.value" type="button" class="chip" @click="moves.takeBack()">
              Take it back
            </button>
          </span>
        </BenchTabs>
        <MovePanel v-if="doing === 'move'" :work="moves" />
        <VerdictPanel v-else-if="doing === 'verdict'" :work="judged" @keep="moves.keep(verdict?.lick)" />
        <template v-if="!kept && doing === 'lead'">
          <div class="choices" role="group" aria-label="Target">
            <span class="what quiet">land on</span>
            <button
              type="button"
              class="chip"
              :aria-pressed="!view.target.value"
              @click="view.set({ target: undefined })"
            >
              best
            </button>
            <button
              v-for="tone in targets"
              :key="targetText(tone)"
              type="button"
              class="chip target"
              :aria-pressed="isTarget(tone)"
              :aria-label="`Land on ${targetName(tone)}`"
              @click="land(tone)"
            >
              <b>{{ signs(tone.degree) }}</b>
              <small>{{ signs(tone.note) }} {{ tone.string }}:{{ tone.fret }}</small>
            </button>
          </div>
          <ChipRow
            label="Subdivision"
            says="in"
            plural
            :options="subdivisions"
            :chosen="subdivision"
            @choose="(one) => view.set({ sub: one })"
          >
            <span class="quiet by">by</span>
            <PillSelect
              label="Approach"
              :chosen="approach"
              :options="named(tune.choices?.approaches)"
              @choose="(one) => view.set({ approach: one })"
            />
          </ChipRow>
        </template>

        <div v-if="refusal && !kept && doing === 'lead'" class="refusal" role="alert">
          <p>{{ signs(refusal) }}.</p>
          <p v-if="nearest.length" class="choices">
            <button
              v-for="tone in nearest"
              :key="targetText(tone)"
              type="button"
              class="chip"
              @click="land(tone)"
            >
              {{ targetName(tone) }}
            </button>
          </p>
        </div>
        <template v-else-if="line && doing === 'lead'">
          <TabView
            :line="line"
            :strings="tune.map.instrument.strings"
            :sounding="player.event"
            :chosen="chosen"
            @pick="(index) => (chosen = index)"
          />
          <p class="why">
            <template v-if="why">{{ signs(why) }}</template>
            <template v-else>{{ signs(line.notes.join(' ')) }}</template>
          </p>
          <div class="acts">
            <button type="button" class="primary" @click="player.toggle()">
              {{ player.state === 'silent' ? 'Hear it' : 'Stop' }}
            </button>
            <span class="quiet">space</span>
            <button v-if="kept" type="button" class="chip" @click="work.takeUp()">Work on it again</button>
            <button v-else type="button" class="chip" @click="work.keep()">Keep the line</button>
            <span role="status" class="quiet">
              {{ signs(said) }}
              <button v-if="deleted" type="button" class="chip" @click="work.bringBack()">
                Bring it back
              </button>
            </span>
            <span v-if="arriving && !said" class="quiet care">headphones low; rest every 25 minutes</span>
          </div>
        </template>
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
.shelf {
  max-height: 402px;
  overflow-y: auto;
  border-right: 1px solid var(--line);
  padding-right: 0.6rem;
}
.shelf h2 {
  padding: 0 0.5rem;
}
.shelf ol + h2 {
  margin-top: 0.6rem;
}
.shelf li {
  display: flex;
}
.shelf li button:first-child {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  text-align: left;
  border: 0;
  border-radius: 8px;
  background: none;
  padding: 0.32rem 0.5rem;
  cursor: pointer;
}
.shelf li button:first-child:hover {
  background: var(--shade);
}
.shelf .quiet {
  font-size: 0.82rem;
  line-height: 1.2;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.shelf .chosen .quiet {
  white-space: normal;
}
.shelf li button.chosen {
  background: var(--now-tint);
}
.remove {
  border: 0;
  background: none;
  color: var(--stone);
  cursor: pointer;
  border-radius: 8px;
}
.remove:hover {
  color: var(--next);
}
.target {
  padding-inline: 0.5rem;
}
small {
  margin-left: 0.3rem;
  font-size: 0.78rem;
}
.by {
  margin-left: 1rem;
}
.said {
  margin-left: auto;
}
.refusal {
  margin-top: 1rem;
  padding: 0.8rem 1rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.refusal .choices {
  margin: 0.6rem 0 0;
}
.why {
  min-height: 2.7em;
  margin: 2px 0 6px;
}
.acts {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
.care {
  margin-left: auto;
  font-size: 0.85rem;
}
</style>
