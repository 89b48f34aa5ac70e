<script setup lang="ts">
import { computed } from 'vue'
import type { Exercise } from '../../api/client'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import type { ExerciseQuery } from './address'
import ChoiceRow from './ChoiceRow.vue'
import MoreChoices from './MoreChoices.vue'
import NumberPair from './NumberPair.vue'
import TextField from './TextField.vue'
import type { ExerciseWork } from './work'

/** What an exercise is made of: the few choices that matter most, and the rest behind a click. */
const props = defineProps<{ work: ExerciseWork; exercise: Exercise; query: ExerciseQuery }>()
const tune = useTune()
const view = useView()
const choices = computed(() => tune.choices!.exercises)
const tones = computed(
  () => choices.value.tones.find((t) => t.name === (props.exercise.tones ?? '')) ?? choices.value.tones[0]!,
)
const strings = computed(() => tune.map?.instrument.strings.length ?? 6)
const frets = computed(() => tune.map?.instrument.frets ?? 22)
const where = computed(() => props.exercise.where)
const bySteps = computed(() => [...view.subdivisions.value, choices.value.oncePerChord])

const set = (label: string, change: Partial<Exercise>) =>
  void props.work.edit(label, (now) => ({ ...now, ...change }))
const setIn =
  <Part extends 'over' | 'where' | 'order' | 'ornaments' | 'time'>(part: Part) =>
  (label: string, change: Partial<Exercise[Part]>) =>
    void props.work.edit(label, (now) => ({ ...now, [part]: { ...now[part], ...change } }))
const setOver = setIn('over')
const setWhere = setIn('where')
const setOrder = setIn('order')
const setTime = setIn('time')

function toggleExtension(number: number) {
  const now = props.exercise.extensions ?? []
  const extensions = now.includes(number)
    ? now.filter((one) => one !== number)
    : [...now, number].sort((a, b) => a - b)
  set(`extension ${number}`, { extensions: extensions.length ? extensions : undefined })
}
function chooseTones(name: string | undefined) {
  const next = choices.value.tones.find((t) => t.name === name) ?? choices.value.tones[0]!
  set('what is played', {
    ...{ tones: name, extensions: next.arpeggio ? props.exercise.extensions : undefined },
    ...{ broken: next.structure && props.exercise.broken ? true : undefined, superimposed: undefined },
  })
}
/** The bars of the tune that are written over at most. */
const bars = computed(() => Math.min(tune.read?.facts.bars ?? 1, choices.value.maxBars))
function chooseBars(from: number, to: number) {
  const all = from === 1 && to === bars.value
  setOver('the bars', { from: all ? undefined : from, bars: all ? undefined : to - from + 1 })
}
/** The strings are chosen from all, or left to all. */
const bounds = computed(() => ({
  low: where.value.lowString || 1,
  high: where.value.highString || strings.value,
}))
function chooseStrings(low: number, high: number) {
  const all = low === 1 && high === strings.value
  setWhere('strings', { lowString: all ? undefined : low, highString: all ? undefined : high })
}
const perString = ['2', '3', '4']
const readNumbers = (text: string) =>
  text
    .split(/[^0-9]+/)
    .filter(Boolean)
    .map(Number)
</script>

<template>
  <div class="panel">
    <ChoiceRow label="What" :choices="choices.tones" :chosen="exercise.tones" @choose="chooseTones">
      <template v-if="tones.arpeggio">
        <button
          v-for="number in [9, 11, 13]"
          :key="number"
          type="button"
          class="chip"
          :aria-pressed="exercise.extensions?.includes(number) ?? false"
          :title="`Add the ${number} (the ${number - 7}), as the chord's scale has it`"
          @click="toggleExtension(number)"
        >
          {{ number }}
        </button>
      </template>
      <template v-else-if="tones.name === 'superimposed arpeggio'">
        on the
        <PillSelect
          label="The degree it stands on"
          :chosen="String(exercise.superimposed ?? 0)"
          :options="[{ value: '0', text: 'best' }, ...named(['3', '5', '7', '9'])]"
          @choose="(one) => set('where the arpeggio stands', { superimposed: Number(one) || undefined })"
        />
      </template>
      <button
        v-else-if="tones.structure"
        type="button"
        class="chip"
        :aria-pressed="exercise.broken ?? false"
        title="The notes one after the other, in place of together"
        @click="set('together or one by one', { broken: !exercise.broken || undefined })"
      >
        one by one
      </button>
    </ChoiceRow>
    <ChoiceRow
      label="Over"
      :choices="choices.over"
      :chosen="exercise.over.kind"
      @choose="(kind) => setOver('what it is over', { kind, from: undefined, bars: undefined })"
    >
      <template v-if="exercise.over.kind === 'one chord'">
        <TextField
          label="The chord"
          :value="exercise.over.chord ?? ''"
          placeholder="the tune's first"
          :width="7"
          @change="(chord) => setOver('the chord', { chord: chord || undefined })"
        />
      </template>
      <NumberPair
        v-else-if="!exercise.over.kind && bars > 1"
        label="bar"
        :low="exercise.over.from || 1"
        :high="(exercise.over.from || 1) + (exercise.over.bars || bars - (exercise.over.from || 1) + 1) - 1"
        :least="1"
        :most="bars"
        says="bars"
        @choose="chooseBars"
      />
      <TextField
        v-else-if="exercise.over.kind === 'a progression'"
        label="The progression"
        :value="exercise.over.text ?? ''"
        placeholder="| Am7 | D7 |"
        :width="15"
        @change="(content) => setOver('the progression', { text: content || undefined })"
      />
    </ChoiceRow>
    <ChoiceRow
      label="Where"
      :choices="choices.where"
      :chosen="where.kind"
      @choose="(kind) => setWhere('where on the neck', { kind })"
    >
      <NumberPair
        label="string"
        :low="bounds.low"
        :high="bounds.high"
        :least="1"
        :most="strings"
        says="strings"
        @choose="chooseStrings"
      />
      <NumberPair
        v-if="where.kind === 'on some frets'"
        label="fret"
        :low="where.lowFret ?? 0"
        :high="where.highFret ?? 0"
        :least="0"
        :most="frets"
        says="frets"
        @choose="(lowFret, highFret) => setWhere('frets', { lowFret, highFret })"
      />
      <PillSelect
        v-if="where.kind === 'so many notes a string' || where.kind === 'a cell on two strings, moved'"
        label="Notes on a string"
        :chosen="String(where.perString || (where.kind === 'so many notes a string' ? 3 : 2))"
        :options="named(where.kind === 'so many notes a string' ? perString : ['1', '2', '3'])"
        @choose="(one) => setWhere('notes on a string', { perString: Number(one) })"
      />
    </ChoiceRow>
    <ChoiceRow
      label="Figure"
      :choices="choices.figures"
      :chosen="exercise.order.figure"
      @choose="(figure) => setOrder('the figure', { figure })"
    >
      <TextField
        v-if="exercise.order.figure === 'my own numbers'"
        label="My numbers"
        :value="(exercise.order.numbers ?? []).join(' ')"
        placeholder="1 2 3 1"
        :width="9"
        @change="(content) => setOrder('my numbers', { numbers: readNumbers(content) })"
      />
    </ChoiceRow>
    <ChoiceRow
      label="Notes"
      :choices="
        bySteps.map((name) => ({
          name,
          text: name === choices.oncePerChord ? 'each chord is struck once and held' : `notes in ${name}s`,
        }))
      "
      :chosen="exercise.time.subdivision ?? tune.choices?.subdivision"
      @choose="(subdivision) => setTime('the subdivision', { subdivision: subdivision ?? bySteps[0] })"
    />
    <button
      type="button"
      class="chip more"
      :aria-expanded="query.more.value"
      @click="query.set({ more: !query.more.value })"
    >
      {{ query.more.value ? 'Fewer choices' : 'More choices' }}
    </button>
    <MoreChoices v-if="query.more.value" :work="work" :exercise="exercise" />
  </div>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
}
.more {
  align-self: flex-start;
  margin: 2px 0 8px;
}
.chip {
  padding: 0.14rem 0.55rem;
}
</style>
