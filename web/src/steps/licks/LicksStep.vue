<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useView } from '../../address/view'
import { useAnswer } from '../../api/ask'
import type { KeptLick, Place } from '../../api/client'
import BenchTabs from '../../controls/BenchTabs.vue'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useLicks } from '../../document/licks'
import SaveNotice from '../../document/SaveNotice.vue'
import { useTune } from '../../document/tune'
import { samePlace } from '../../neck/geometry'
import { lineMarks, type Mark } from '../../neck/marks'
import NeckView from '../../neck/NeckView.vue'
import { usePlayer, useSource } from '../../sound/player'
import { useCursor } from '../../tab/cursor'
import { useLickWriting } from '../../tab/writing'
import WritePanel from '../../tab/WritePanel.vue'
import { panels, useLicksQuery, type PanelName } from './address'
import ImportPanel from './ImportPanel.vue'
import { useVariants } from './variants'
import VariantsPanel from './VariantsPanel.vue'
import { useFinding } from './finding'
import { useJoining } from './joining'
import JoinPanel from './JoinPanel.vue'
import { useKeeping } from './keeping'
import LeadPanel from './LeadPanel.vue'
import LickTools from './LickTools.vue'
import { useLine } from './line'
import { ledMarks, spanOf, writtenMarks } from './marks'
import MovePanel from './MovePanel.vue'
import { useMoves } from './moves'
import { usePanels } from './panels'
import { useLickQuestion } from './questions'
import ShelfPanel from './ShelfPanel.vue'
import { useVerdict } from './verdict'
import VerdictPanel from './VerdictPanel.vue'
import VersionsPanel from './VersionsPanel.vue'
import { useWalking } from './walking'
import { useWork } from './work'

const tune = useTune()
const view = useView()
const player = usePlayer()
const licks = useLicks()
const query = useLicksQuery()
const keeping = useKeeping(query)

onMounted(() => licks.load().catch(tune.tell))

const is = (name: PanelName) => () => query.panel.value === name
const writes = is('write')
/** Versions are of the lick as it is written. */
const show = (name: PanelName) =>
  query.set(name === 'versions' ? { panel: name, here: false } : { panel: name })
const turn = (name: PanelName) => void show(query.panel.value === name ? 'lead' : name)

const { lick, fresh, document } = useWork(query)

const question = useLickQuestion(() => lick.value, query)
const { answer: asIs } = useAnswer(
  () => (lick.value && !query.here.value && !writes() && !is('lead')() ? lick.value.lick : undefined),
  (one) => licks.compute(one),
)
const line = useLine(() => lick.value, query, is('lead'))
const { entries, targets, opened, openId } = line
const moves = useMoves(question, query, is('move'))
const verdict = useVerdict(question, query, is('verdict'))
const variants = useVariants(question, query, is('variants'))
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
  ...{ lick, asIs, line, moves, verdict, variants, joining, writing, cursor },
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

const choose = (one: KeptLick) =>
  query.set({ lick: one.id, fix: undefined, fresh: undefined, line: undefined })
const walking = useWalking(lick, finding, line, choose)
const create = () => query.set({ panel: 'write', fresh: true, line: undefined })
const keep = () => void (is('lead')() ? line.keep() : keeping.keep(panel.value.kept))

useKeys([
  { key: 'ArrowUp', shown: '↑', says: 'the lick above', run: () => walking.licks(-1) },
  { key: 'ArrowDown', shown: '↓', says: 'the lick below', run: () => walking.licks(1) },
  { key: 't', says: 'another target', run: walking.targets },
  { key: 'a', says: 'another approach', run: walking.approaches },
  { key: 's', says: 'another subdivision', run: walking.subdivisions },
  { key: 'k', says: 'keep what is shown', run: keep },
  { key: 'e', says: 'write the lick', run: () => turn('write') },
  { key: 'v', says: 'understand it', run: () => turn('verdict') },
  { key: 'r', says: 'repair the next note', run: () => verdict.repairNext() },
  { key: 'm', says: 'move it to every chord', run: () => turn('move') },
  { key: 'w', says: 'its variants', run: () => turn('variants') },
  { key: 'j', says: 'cut it, or join it with another', run: () => turn('join') },
  {
    key: 'c',
    says: 'as written, or under the hand',
    run: () => void (is('versions')() || query.set({ here: !query.here.value })),
  },
  { key: 'q', says: 'a new lick', run: () => void create() },
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
          is('import')() ? 'A lick to import' : writes() ? writing.lick.value?.name : lick?.lick.name
        }}</strong>
        <span
          ><strong class="arriving">{{ signs(panel.strong) }}</strong
          >{{ signs(panel.after) }}</span
        >
      </template>
    </p>
    <NeckView
      v-if="!is('import')()"
      :instrument="neck"
      :span="span"
      :marks="marks"
      label="The line on the neck"
      :spacing="writes() && query.staff.value ? 24 : 28"
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
        @import="show('import')"
        @open="(entry) => query.set({ line: entry.id, panel: 'lead' })"
        @remove="line.remove"
        @remove-lick="keeping.remove"
      />
      <div class="desk">
        <BenchTabs
          v-if="!opened"
          :tabs="panels"
          :chosen="query.panel.value === 'import' ? undefined : query.panel.value"
          @choose="show"
        >
          <LickTools :query="query" :keeping="keeping" :lick="lick" :fresh="fresh" />
        </BenchTabs>
        <div
          role="tabpanel"
          :aria-label="panels.find((one) => one.name === query.panel.value)?.title ?? 'Import'"
        >
          <ImportPanel v-if="is('import')()" @keep="keeping.keepAndWrite" />
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
          <VariantsPanel
            v-else-if="is('variants')()"
            :work="variants"
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
          <VersionsPanel v-else-if="is('versions')() && lick" :lick="lick" />
          <p v-else-if="!view.pickedChange.value">
            This tune stays on one chord, so there is no change to land on. Give it a scheme above.
          </p>
          <LeadPanel v-else :work="line" @land="pick" @near="finding.askNear" />
        </div>
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
@container main (max-width: 52rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
