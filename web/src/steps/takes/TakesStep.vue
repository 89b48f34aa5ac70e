<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import BenchTabs from '../../controls/BenchTabs.vue'
import PillSelect from '../../controls/PillSelect.vue'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import NeckView from '../../neck/NeckView.vue'
import { boxMarks, toneMark, type Mark } from '../../neck/marks'
import { withPlayed } from '../../neck/played'
import { useInputChoice } from '../../sound/inputchoice'
import { useRecording } from '../../sound/recording'
import { benches, useTakesQuery } from './address'
import DelayPanel from './DelayPanel.vue'
import FilePanel from './FilePanel.vue'
import { useHearing } from './hearing'
import NotesPanel from './NotesPanel.vue'
import { usePicked } from './picked'
import { usePunch } from './punch'
import RecordBar from './RecordBar.vue'
import StandInPanel from './StandInPanel.vue'
import TakeList from './TakeList.vue'
import TunerPanel from './TunerPanel.vue'
import VerdictPanel from './VerdictPanel.vue'
import { useTakesWork } from './work'

const tune = useTune()
const view = useView()
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

const picked = usePicked(work)

/** Whether the panel is about the take that is chosen. */
const showsTake = computed(() => ['verdict', 'notes', 'takes'].includes(query.bench.value))

const audio = useTemplateRef<HTMLAudioElement>('audio')
const { half, hasSound, hear, hearBesideBand, hearPlan, practiseBars, toggleHalf } = useHearing(audio, work)
const { punching, punch } = usePunch(work)
const punchPicked = () =>
  picked.bars.value && void punch(picked.bars.value.from, picked.bars.value.to).catch(tune.tell)

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
    run: () => void (recording.recordsNow && work.cancel()),
  },
  { key: 'p', says: 'record the bars of the chosen notes again', run: punchPicked },
  { key: 'd', says: 'drill the changes that were missed', run: () => void drill() },
  { key: 'h', says: 'hear the take', run: () => hear(picked.from.value) },
  { key: 'k', says: 'keep the chosen notes as a lick', run: () => void picked.keepLick() },
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
          <button
            v-if="verdict?.pairs.length"
            type="button"
            class="chip"
            title="Hear the line that was meant"
            @click="hearPlan().catch(tune.tell)"
          >
            the plan
          </button>
        </span>
      </BenchTabs>
      <div role="tabpanel" :aria-label="benches.find((one) => one.name === query.bench.value)?.title">
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
            @mark="(events) => (picked.marked.value = events)"
            @hear="hear"
            @drill="drill"
          />
          <p v-else class="quiet empty">
            Record a take over the band, with headphones, and read here what your notes say: which chord tones
            you landed on, how early or late, and how true the bends are. Headphones low; stop at any pain.
          </p>
        </template>
        <NotesPanel
          v-else-if="query.bench.value === 'notes'"
          :verdict="verdict"
          :picked="picked"
          :has-sound="hasSound"
          :punching="punching"
          @hear="hear(picked.from.value)"
          @again="picked.bars.value && practiseBars(picked.bars.value)"
          @punch="punchPicked"
        />
        <TakeList v-else-if="query.bench.value === 'takes'" :work="work" />
        <TunerPanel v-else-if="query.bench.value === 'tuner'" :work="work" />
        <StandInPanel v-else-if="query.bench.value === 'delay' && input.isStandIn()" :work="work" />
        <DelayPanel v-else-if="query.bench.value === 'delay'" />
        <FilePanel v-else :work="work" />
      </div>
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
/* The name of the take beside is cut before the row breaks; the list has it whole. */
.right :deep(.pill) {
  max-width: 11rem;
}
.bench :deep(.head) {
  flex-wrap: wrap;
}
@container main (max-width: 58rem) {
  .right {
    margin-left: 0;
    min-width: 0;
  }
  .right :deep(.pill) {
    max-width: 100%;
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
