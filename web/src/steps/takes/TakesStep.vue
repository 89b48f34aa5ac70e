<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client } from '../../api/client'
import BenchTabs from '../../controls/BenchTabs.vue'
import PillSelect from '../../controls/PillSelect.vue'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import NeckView from '../../neck/NeckView.vue'
import { boxMarks, toneMark, type Mark } from '../../neck/marks'
import { withPlayed } from '../../neck/played'
import { useInputChoice } from '../../sound/inputchoice'
import { useRecording } from '../../sound/recording'
import TabView from '../../tab/TabView.vue'
import { benches, useTakesQuery } from './address'
import DelayPanel from './DelayPanel.vue'
import FilePanel from './FilePanel.vue'
import { useHearing } from './hearing'
import { usePunch } from './punch'
import RecordBar from './RecordBar.vue'
import StandInPanel from './StandInPanel.vue'
import TakeList from './TakeList.vue'
import TunerPanel from './TunerPanel.vue'
import VerdictPanel from './VerdictPanel.vue'
import { useTakesWork } from './work'

const tune = useTune()
const view = useView()
const licks = useLicks()
const query = useTakesQuery()
const recording = useRecording()
const input = useInputChoice()
const work = useTakesWork()
const { chosen, verdict, beside, earlier, others } = work

const position = computed(() => view.position.value)
const shape = computed(() => position.value?.shapes.find((s) => s.chord === view.moment.value?.chord))
/** The tones of the chord, and over them what is heard at this moment, wherever it lies. */
const marks = computed<Mark[]>(() => {
  const tones = (shape.value?.tones ?? []).map((tone) => ({ ...toneMark(tone, 'tone'), small: undefined }))
  const shown = [...tones, ...boxMarks(shape.value?.box ?? [], tones)]
  return withPlayed(shown, recording.sounding, position.value)
})

/** The notes that a finding speaks of, as events of the tab; and those that are chosen to become a lick. */
const marked = ref<number[]>([])
const from = ref<number>()
const to = ref<number>()
watch(verdict, () => {
  marked.value = []
  from.value = to.value = undefined
})
const heardAt = computed(() => verdict.value?.heard.find((h) => h.event === from.value))
function pick(event: number) {
  if (from.value === undefined || to.value !== from.value || event < from.value) from.value = to.value = event
  else to.value = event
  marked.value = Array.from({ length: to.value! - from.value! + 1 }, (_, n) => from.value! + n)
}

/** Whether the panel is about the take that is chosen. */
const showsTake = computed(() => ['verdict', 'notes', 'takes'].includes(query.bench.value))

const audio = useTemplateRef<HTMLAudioElement>('audio')
const { half, hasSound, hear, hearBesideBand, practiseBars, toggleHalf } = useHearing(audio, work)
const hearPicked = () => hear(from.value)
const { punching, punch } = usePunch(work)
/** The bars of the notes that are chosen; what is played before bar 1 counts to it. */
const pickedBars = computed(() => {
  const barOf = (event: number | undefined) => verdict.value?.heard.find((h) => h.event === event)?.bar
  const [first, last] = [barOf(from.value), barOf(to.value)]
  return first === undefined || last === undefined
    ? undefined
    : { from: Math.max(1, first), to: Math.max(1, last) }
})
const punchPicked = () =>
  pickedBars.value && void punch(pickedBars.value.from, pickedBars.value.to).catch(tune.tell)

/** As wide as its notes need, a bar about as wide as four eighths are easily read. */
const tabWidth = computed(() => Math.max(838, (verdict.value?.tab.bars ?? 0) * 190))

const notice = ref('')
/** Keeps the notes that are chosen as a lick. */
async function keepLick() {
  const take = chosen.value
  if (!take || from.value === undefined || to.value === undefined) return
  try {
    const made = await answer(
      client.GET('/api/takes/{id}/lick', {
        params: { path: { id: take.id }, query: { from: from.value, to: to.value } },
      }),
    )
    const kept = await licks.create(made.lick)
    notice.value = `Kept as the lick ${kept.lick.name}${made.lost.length ? `; ${made.lost.join('; ')}` : ''}.`
  } catch (error) {
    tune.tell(error)
  }
}

/** Opens the cards of the changes that were missed in Practice. */
const router = useRouter()
const drill = (cards = verdict.value?.missed.map((m) => m.card) ?? []) =>
  cards.length
    ? router.push({
        ...{ name: 'practice', params: { id: tune.id } },
        query: { 'practice.page': 'drill', 'practice.cards': [...new Set(cards)].join(';') },
      })
    : undefined

/** Goes to the take before, or to the one after. */
function step(by: number) {
  const all = work.takes.value
  const at = all.findIndex((take) => take.id === chosen.value?.id)
  const next = all[at + by]
  if (next) void query.set({ take: next.id })
}

useKeys([
  { key: ',', says: 'the later take', run: () => step(-1) },
  { key: '.', says: 'the earlier take', run: () => step(1) },
  {
    key: 'r',
    says: 'record a take, and end it',
    run: () => void (recording.recordsNow ? work.stop() : work.record()),
  },
  {
    key: 'x',
    says: 'throw away what is being recorded',
    run: () => void (recording.recordsNow && recording.cancel()),
  },
  { key: 'p', says: 'record the bars of the chosen notes again', run: punchPicked },
  { key: 'd', says: 'drill the changes that were missed', run: () => void drill() },
  { key: 'h', says: 'hear the take', run: () => (from.value === undefined ? hear() : hearPicked()) },
  {
    key: 'w',
    says: 'the next panel: verdict, notes, takes, tuner, set-up, file',
    run: () => {
      const at = benches.findIndex((b) => b.name === query.bench.value)
      void query.set({ bench: benches[(at + 1) % benches.length]?.name })
    },
  },
])
</script>

<template>
  <section class="takes">
    <RecordBar :work="work" />
    <NeckView
      v-if="tune.map && position"
      class="neck"
      :instrument="tune.map.instrument"
      :span="position"
      :marks="marks"
      :label="`${signs(view.moment.value?.chord ?? '')} on the neck, and what you play`"
      :spacing="30"
    />
    <div class="bench">
      <BenchTabs :tabs="benches" :chosen="query.bench.value" @choose="(bench) => query.set({ bench })">
        <span v-if="chosen && showsTake" class="right acts">
          <span class="quiet">{{ chosen.name }}</span>
          <PillSelect
            v-if="query.bench.value === 'verdict' && others.length"
            label="Beside which take"
            :chosen="String(earlier?.id ?? 0)"
            :options="[
              { value: '0', text: 'beside no other' },
              ...others.map((take) => ({
                value: String(take.id),
                text: `beside ${take.name}`,
                ownName: true,
              })),
            ]"
            @choose="(id) => query.set({ beside: Number(id) })"
          />
          <button type="button" class="chip" :disabled="!hasSound" title="Hear the take (h)" @click="hear()">
            hear it
          </button>
          <button type="button" class="chip" :aria-pressed="half" :disabled="!hasSound" @click="toggleHalf()">
            half speed
          </button>
          <button type="button" class="chip" :disabled="!hasSound" @click="hearBesideBand()">
            with the band
          </button>
        </span>
      </BenchTabs>
      <audio ref="audio" :src="hasSound ? `/api/takes/${chosen?.id}/sound` : undefined" preload="none" />
      <template v-if="query.bench.value === 'verdict'">
        <p v-if="work.looking.value" class="quiet" role="status">
          Looking whether the band comes through the microphone.
        </p>
        <p v-for="remark in verdict?.remarks ?? []" :key="remark" class="remark">{{ signs(remark) }}.</p>
        <VerdictPanel
          v-if="verdict"
          :verdict="verdict"
          :beside="beside"
          @mark="(events) => (marked = events)"
          @hear="hear"
          @drill="drill"
        />
        <p v-else class="quiet empty">
          Record a take over the band, with headphones, and read here what your notes say: which chord tones
          you landed on, how early or late, and how true the bends are. Headphones low; stop at any pain.
        </p>
      </template>
      <div v-else-if="query.bench.value === 'notes'">
        <template v-if="verdict?.tab.events.length">
          <div class="scroll">
            <TabView
              :style="{ width: `${tabWidth}px` }"
              :line="verdict.tab"
              :strings="tune.map?.instrument.strings ?? []"
              :sounding="undefined"
              :chosen="from"
              :marked="marked"
              :width="tabWidth"
              label="What was heard, as tab"
              @pick="pick"
            />
          </div>
          <p class="acts">
            <span v-if="heardAt">{{ heardAt.text }}, bar {{ heardAt.bar }}</span>
            <span v-else class="quiet">Pick the first note of a phrase, then its last.</span>
            <button type="button" class="chip" :disabled="from === undefined" @click="keepLick()">
              keep as a lick
            </button>
            <button
              type="button"
              class="chip"
              :disabled="from === undefined || !hasSound"
              @click="hearPicked()"
            >
              hear from there
            </button>
            <button
              type="button"
              class="chip"
              :disabled="from === undefined"
              @click="pickedBars && practiseBars(pickedBars)"
            >
              again, these bars
            </button>
            <button
              type="button"
              class="chip"
              :disabled="from === undefined || recording.recordsNow"
              title="Record these bars again in their place (p)"
              @click="punchPicked()"
            >
              play them in again
            </button>
            <span v-if="punching" role="status"
              >Play bar {{ punching.from
              }}{{ punching.to > punching.from ? ` to ${punching.to}` : '' }} again: it ends by itself.</span
            >
            <span v-else role="status">{{ notice }}</span>
          </p>
        </template>
        <p v-else class="quiet empty">No notes yet: record a take, or open a file.</p>
      </div>
      <TakeList v-else-if="query.bench.value === 'takes'" :work="work" />
      <TunerPanel v-else-if="query.bench.value === 'tuner'" :work="work" />
      <StandInPanel v-else-if="query.bench.value === 'delay' && input.isStandIn()" :work="work" />
      <DelayPanel v-else-if="query.bench.value === 'delay'" />
      <FilePanel v-else :work="work" />
    </div>
  </section>
</template>

<style scoped>
.takes {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.right {
  margin-left: auto;
}
.scroll {
  overflow-x: auto;
}
.scroll > * {
  max-width: none;
}
.bench :deep(.head) {
  flex-wrap: wrap;
}
@media (max-width: 900px) {
  .right {
    margin-left: 0;
  }
}
.remark {
  margin: 0 0 4px;
  color: var(--next);
}
.empty {
  max-width: 70ch;
}
</style>
