<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useView } from '../../address/view'
import { useAnswer } from '../../api/ask'
import type { KeptLick, Lick, Place, WrittenLick } from '../../api/client'
import BenchTabs from '../../controls/BenchTabs.vue'
import { useKeys } from '../../controls/keys'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import type { Kept } from '../../document/kept'
import { useLicks } from '../../document/licks'
import SaveNotice from '../../document/SaveNotice.vue'
import { useTune } from '../../document/tune'
import { useUndoable } from '../../document/undo'
import { samePlace } from '../../neck/geometry'
import { lineMarks, type Mark } from '../../neck/marks'
import NeckView from '../../neck/NeckView.vue'
import { usePlayer, useSource } from '../../sound/player'
import { useCursor } from '../../tab/cursor'
import { useLickWriting } from '../../tab/writing'
import WritePanel from '../../tab/WritePanel.vue'
import { panels, useLicksQuery, type PanelName } from './address'
import BringPanel from './BringPanel.vue'
import { useElsewhere } from './elsewhere'
import ElsewherePanel from './ElsewherePanel.vue'
import { useFinding } from './finding'
import { useJoining } from './joining'
import JoinPanel from './JoinPanel.vue'
import { useKeeping } from './keeping'
import LeadPanel from './LeadPanel.vue'
import { useLine } from './line'
import { ledMarks, spanOf, writtenMarks } from './marks'
import MovePanel from './MovePanel.vue'
import { useMoves } from './moves'
import { usePanels } from './panels'
import { useLickQuestion } from './questions'
import ShelfPanel from './ShelfPanel.vue'
import { useVerdict } from './verdict'
import VerdictPanel from './VerdictPanel.vue'

const tune = useTune()
const view = useView()
const player = usePlayer()
const licks = useLicks()
const query = useLicksQuery()
const keeping = useKeeping(query)
const { last, gone } = keeping

onMounted(() => licks.load().catch(tune.tell))

const is = (name: PanelName) => () => query.panel.value === name
const writes = is('write')
const show = (name: PanelName) => query.set({ panel: name })
const turn = (name: PanelName) => void show(query.panel.value === name ? 'lead' : name)

// The lick under work: a document once it is written, with its edits before they are saved.
const fresh = computed(() => writes() && query.fresh.value)
const listed = computed(() => licks.readable.find((l) => l.id === query.lick.value) ?? licks.readable[0])
const lick = computed<KeptLick | undefined>(() => {
  const one = listed.value
  const edited = one && licks.documents.peek(one.id)?.body.value
  return one && edited?.events.length ? { ...one, lick: edited } : one
})
const newLick = shallowRef<Kept<Lick, WrittenLick>>()
const document = computed(() => {
  if (fresh.value) return newLick.value
  return writes() && listed.value ? licks.documents.of(listed.value.id) : undefined
})
watch(
  fresh,
  (now) => {
    // One that has no notes yet is written on; any other is a lick of the library by now.
    if (!now || (newLick.value && !newLick.value.id.value)) return
    newLick.value = licks.documents.fresh()
    void newLick.value.begin(licks.blank()).catch(tune.tell)
  },
  { immediate: true },
)
watch(document, (one) => one !== newLick.value && one?.load().catch(tune.tell), { immediate: true })
// A new lick is found by its id as soon as it is kept.
watch(
  () => newLick.value?.id.value,
  (id) => {
    if (!id || !newLick.value) return
    licks.documents.adopt(newLick.value)
    if (fresh.value) void query.set({ lick: id, fresh: undefined })
  },
)
useUndoable(() => document.value)

const question = useLickQuestion(() => lick.value, query)
const { answer: asIs } = useAnswer(
  () => (lick.value && !query.here.value && !writes() && !is('lead')() ? lick.value.lick : undefined),
  (one) => licks.compute(one),
)
const line = useLine(() => lick.value, query, is('lead'))
const { entries, targets, opened, openId, approach, subdivision, subdivisions } = line
const moves = useMoves(question, query, is('move'))
const verdict = useVerdict(question, query, is('verdict'))
const elsewhere = useElsewhere(question, query, is('elsewhere'))
const joining = useJoining(
  () => lick.value,
  () => licks.readable,
  question,
  query,
  is('join'),
)
const finding = useFinding(() => licks.readable, query)
const writing = useLickWriting(() => document.value)
const cursor = useCursor(writing)
const { panel, source, heardFrom } = usePanels(query, {
  ...{ lick, asIs, line, moves, verdict, elsewhere, joining, writing, cursor },
})
useSource('licks', source)
const writePanel = ref<InstanceType<typeof WritePanel>>()
const shelf = ref<InstanceType<typeof ShelfPanel>>()

const sounding = computed(() => (player.event === undefined ? undefined : player.event + heardFrom.value))
/** The neck that is drawn: the tune's, or the one that the lick is written for. */
const neck = computed(() => {
  if (writes()) return writing.written.value?.neck ?? tune.map!.instrument
  return (!query.here.value && !is('lead')() && asIs.value?.neck) || tune.map!.instrument
})
const span = computed(() => {
  const here = view.position.value!
  return is('lead')() ? (line.line.value?.position ?? here) : spanOf(here, panel.value.frets)
})
const marks = computed<Mark[]>(() => {
  if (writes()) {
    const shown = writing.written.value
    const strings = shown?.neck.strings.length ?? 0
    return writtenMarks(shown?.tab.events ?? [], strings, span.value, sounding.value, cursor.here.value)
  }
  if (!is('lead')()) return lineMarks(panel.value.tab?.events ?? [], player.event)
  return ledMarks(line.line.value?.events ?? [], opened.value ? [] : targets.value, player.event)
})
const followed = computed(() => opened.value?.keptIn)

/** A place of the neck: written at the cursor, or landed on. */
function pick({ string, fret }: Place) {
  if (writes()) {
    cursor.put(fret, string)
    writePanel.value?.focus()
    return
  }
  if (targets.value.some((tone) => samePlace(tone, { string, fret })))
    void view.set({ target: { string, fret } })
}

function walk<T>(all: T[], here: T | undefined, by: number): T | undefined {
  const index = here === undefined ? -1 : all.indexOf(here)
  return all[(index + by + all.length) % all.length]
}
const choose = (one: KeptLick) =>
  query.set({ lick: one.id, fix: undefined, fresh: undefined, line: undefined })
function walkLicks(by: number) {
  const all = finding.shown.value.map((one) => one.lick)
  const next = walk(
    all,
    all.find((one) => one.id === lick.value?.id),
    by,
  )
  if (next) void choose(next)
}
function walkTargets() {
  const all = targets.value
  const here = all.find((tone) => view.target.value && samePlace(tone, view.target.value))
  const next = here === all.at(-1) ? undefined : walk(all, here, 1)
  void view.set({ target: next && { string: next.string, fret: next.fret } })
}
const create = () => query.set({ panel: 'write', fresh: true, line: undefined })
const keep = () => void (is('lead')() ? line.keep() : keeping.keep(panel.value.kept))

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
  { key: 'r', says: 'repair the next note', run: () => verdict.repairNext() },
  { key: 'm', says: 'move it to every chord', run: () => turn('move') },
  { key: 'w', says: 'have it elsewhere', run: () => turn('elsewhere') },
  { key: 'j', says: 'cut it, or join it with another', run: () => turn('join') },
  { key: 'c', says: 'as written, or under the hand', run: () => void query.set({ here: !query.here.value }) },
  { key: '+', says: 'a new lick', run: () => void create() },
  { key: 'f', says: 'find licks', run: () => shelf.value?.find() },
])
</script>

<template>
  <section v-if="tune.map && view.position.value">
    <p class="says">
      <template v-if="opened">
        <span class="quiet">Kept line</span> <strong class="name">{{ opened.name }}</strong>
        <span v-if="followed" class="other">
          kept in {{ signs(followed) }}; with its tune now in {{ signs(tune.chart?.key.tonic ?? '') }}
          <template v-if="opened.moved?.length">: {{ signs(opened.moved.join('; ')) }}</template>
        </span>
      </template>
      <template v-else>
        <span class="quiet">{{ signs(panel.before) }}</span>
        <strong class="name">{{
          is('bring')() ? 'A lick to bring in' : writes() ? writing.lick.value?.name : lick?.lick.name
        }}</strong>
        <span
          ><strong class="arriving">{{ signs(panel.strong) }}</strong
          >{{ signs(panel.after) }}</span
        >
      </template>
    </p>
    <NeckView
      v-if="!is('bring')()"
      :instrument="neck"
      :span="span"
      :marks="marks"
      label="The line on the neck"
      :spacing="writes() && query.staff.value ? 25 : 28"
      @pick="pick"
    />
    <SaveNotice
      v-if="document"
      :document="document"
      what="lick"
      @kept-as-new="(id) => query.set({ lick: id, fresh: undefined })"
    />
    <div class="bench columns">
      <ShelfPanel
        ref="shelf"
        :finding="finding"
        :chosen="opened || fresh ? undefined : lick?.id"
        :entries="entries"
        :open-id="openId"
        :damaged="licks.damaged"
        @pick="choose"
        @create="create"
        @bring="show('bring')"
        @open="(entry) => query.set({ line: entry.id, panel: 'lead' })"
        @remove="line.remove"
        @remove-lick="keeping.remove"
      />
      <div class="desk">
        <BenchTabs
          v-if="!opened"
          :tabs="panels"
          :chosen="query.panel.value === 'bring' ? undefined : query.panel.value"
          @choose="show"
        >
          <span role="status" class="quiet said">
            {{ keeping.said.value }}
            <button v-if="last" type="button" class="chip" @click="keeping.takeBack()">Take it back</button>
            <button v-if="gone" type="button" class="chip" @click="keeping.bringBack()">
              Bring {{ gone.lick.name }} back
            </button>
          </span>
          <span
            v-if="!is('lead')() && !writes() && !is('bring')()"
            role="group"
            aria-label="Where the lick is taken"
          >
            <button
              type="button"
              class="chip"
              :aria-pressed="!query.here.value"
              title="In its own key, on its own strings and frets (c)"
              @click="query.set({ here: false })"
            >
              as written
            </button>
            <button
              type="button"
              class="chip"
              :aria-pressed="query.here.value"
              title="In the tune's key, where the hand is (c)"
              @click="query.set({ here: true })"
            >
              under the hand
            </button>
          </span>
          <template v-if="writes() && !fresh && lick">
            <PillSelect
              label="Take it away as"
              placeholder="take away"
              :chosen="undefined"
              :options="(tune.choices?.lickFormats ?? []).map((f) => ({ value: f.name, text: f.title }))"
              @choose="(format) => keeping.takeAway(lick!.id, format)"
            />
            <button type="button" class="chip" @click="keeping.remove(lick)">Delete</button>
          </template>
        </BenchTabs>
        <BringPanel v-if="is('bring')()" @keep="keeping.keepAndWrite" />
        <WritePanel
          v-else-if="writes()"
          ref="writePanel"
          :writing="writing"
          :cursor="cursor"
          :sounding="sounding"
          :state="document?.body.value?.events.length ? document.state.value : 'empty'"
          :staff="query.staff.value"
          @toggle-staff="query.set({ staff: !query.staff.value })"
        />
        <MovePanel
          v-else-if="is('move')()"
          :work="moves"
          :strings="neck.strings"
          @keep="keeping.keep(panel.kept)"
        />
        <VerdictPanel
          v-else-if="is('verdict')()"
          :work="verdict"
          :strings="neck.strings"
          @keep="keeping.keep(panel.kept)"
        />
        <ElsewherePanel
          v-else-if="is('elsewhere')()"
          :work="elsewhere"
          :strings="neck.strings"
          @keep="keeping.keep(panel.kept)"
        />
        <JoinPanel
          v-else-if="is('join')() && lick"
          :work="joining"
          :licks="licks.readable"
          :query="query"
          :strings="neck.strings"
          @keep="keeping.keep"
          @keep-all="keeping.keepAll"
        />
        <p v-else-if="!view.change.value">
          This tune stays on one chord, so there is no change to land on. Give it a scheme above.
        </p>
        <LeadPanel v-else :work="line" @land="pick" @near="finding.askNear" />
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
