<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import type { Problem } from '../../api/client'
import { signs } from '../../controls/spelling'
import { useTune, type ChartEdit } from '../../document/tune'
import { useMedia } from '../../controls/media'
import ChordPad from './ChordPad.vue'
import type { Selection } from './selection'

/** What can be done with the selected bars. */
const props = defineProps<{ selection: Selection; copied: number | undefined }>()
defineEmits<{
  copy: []
  paste: []
  remove: []
  insert: []
  write: []
  put: [text: string, beside: boolean]
}>()

const tune = useTune()
/** Without a keyboard chords are put from a pad. */
const touched = useMedia('(pointer: coarse)')
const padWanted = ref<boolean>()
const pad = computed(() => padWanted.value ?? touched.value)
const bars = computed(() => tune.read?.bars ?? [])
const first = computed(() => props.selection.first.value)
const range = computed(() => ({ bar: first.value + 1, count: props.selection.size.value }))
const bar = computed(() => (range.value.count === 1 ? bars.value[first.value] : undefined))
const title = computed(() => {
  const { bar, count } = range.value
  if (count === 0) return 'A new bar'
  return count === 1 ? `Bar ${bar}` : `Bars ${bar}–${bar + count - 1}`
})
const functions = computed(() => {
  const symbols = new Set(bar.value?.chords.map((c) => c.chord))
  for (const c of bar.value?.imagined ?? []) symbols.add(c.chord)
  return (tune.read?.facts.chords ?? []).filter((fact) => symbols.has(fact.chord))
})
const sections = ['Intro', 'A', 'B', 'C', 'Ending']

const refused = ref<Problem>()
const imagined = ref('')
const section = ref('')
watch(
  () => [first.value, bar.value?.imaginedText, bars.value[first.value]?.section] as const,
  ([, layer, label]) => {
    imagined.value = layer ?? ''
    section.value = label ?? ''
    refused.value = undefined
  },
  { immediate: true },
)

async function edit(change: ChartEdit) {
  refused.value = await tune.attempt(change)
}

function lengthen(chord: number, by: number) {
  const beats = bar.value?.chords.map((c) => c.beats) ?? []
  // What one chord gains its neighbour gives; the server has the last word.
  const other = chord + 1 < beats.length ? chord + 1 : chord - 1
  beats[chord] = (beats[chord] ?? 0) + by
  beats[other] = (beats[other] ?? 0) - by
  return edit({ lengths: { bar: first.value + 1, beats } })
}

const times = computed(() => {
  const last = bars.value[props.selection.last.value]
  return bars.value[first.value]?.repeatFrom ? (last?.repeatTo ?? 0) : 0
})
const ordinals = ['', '1st', '2nd', '3rd', '4th']
/** Another ending can be bracketed once the one before it is there. */
const endings = computed(() => {
  const bracketed = Math.max(...bars.value.map((b) => b.ending), 1)
  return Array.from({ length: Math.min(bracketed + 1, tune.choices?.endings ?? 2) }, (_, n) => n + 1)
})
const most = computed(() => tune.choices?.times.most ?? 2)
</script>

<template>
  <div class="head">
    <h2>{{ title }}</h2>
    <span class="acts">
      <button type="button" class="chip" :aria-pressed="pad" @click="padWanted = !pad">pad</button>
      <button type="button" class="chip" @click="$emit('write')">
        Write <span class="quiet">Enter</span>
      </button>
    </span>
  </div>
  <ChordPad v-if="pad" @put="(text, beside) => $emit('put', text, beside)" />
  <p v-if="refused" class="refused" role="alert">{{ refused.message }}</p>
  <p v-if="!range.count" class="quiet">Type a chord to add a bar at the end.</p>
  <template v-else>
    <template v-if="bar">
      <ul class="functions">
        <li v-for="fact in functions" :key="fact.chord">
          <strong>{{ signs(fact.chord) }}</strong> {{ signs(fact.function) }}.
        </li>
      </ul>
      <div class="line">
        <span class="what">Split</span>
        <button
          v-for="parts in [2, 3, 4]"
          :key="parts"
          type="button"
          class="chip"
          :aria-label="`Split in ${parts}`"
          @click="edit({ split: { bar: first + 1, parts } })"
        >
          {{ parts }}
        </button>
      </div>
      <div v-if="bar.chords.length > 1" class="line">
        <span class="what">Beats</span>
        <span v-for="(c, n) in bar.chords" :key="n" class="beats">
          <button
            type="button"
            class="nudge"
            :aria-label="`${signs(c.chord) || 'N.C.'} a beat shorter`"
            @click="lengthen(n, -1)"
          >
            −
          </button>
          <span
            >{{ signs(c.chord) || 'N.C.' }} <strong class="tabular">{{ c.beats }}</strong></span
          >
          <button
            type="button"
            class="nudge"
            :aria-label="`${signs(c.chord) || 'N.C.'} a beat longer`"
            @click="lengthen(n, 1)"
          >
            +
          </button>
        </span>
      </div>
      <form
        class="line"
        @submit.prevent="edit({ write: { bar: first + 1, text: imagined, imagined: true } })"
      >
        <label class="what" for="imagined">Imagine</label>
        <InputText
          id="imagined"
          v-model="imagined"
          class="grow"
          placeholder="D♭7, or . . D♭7 . for one beat"
        />
        <button type="submit" class="chip">Put over</button>
      </form>
    </template>
    <form class="line" @submit.prevent="edit({ section: { bar: first + 1, label: section } })">
      <label class="what" for="section">Section</label>
      <InputText id="section" v-model="section" class="label" placeholder="none" />
      <button type="submit" class="chip">Name</button>
      <button
        v-for="label in sections"
        :key="label"
        type="button"
        class="chip small"
        :aria-label="`Section ${label}`"
        @click="edit({ section: { bar: first + 1, label } })"
      >
        {{ label }}
      </button>
    </form>
    <div class="line">
      <span class="what">Repeat</span>
      <button
        v-for="n in [2, 3, 4]"
        :key="n"
        type="button"
        class="chip"
        :aria-pressed="times === n"
        :aria-label="`Play ${n} times`"
        :disabled="n > most"
        @click="edit({ repeat: { ...range, times: times === n ? 1 : n } })"
      >
        ×{{ n }}
      </button>
      <button
        v-for="number in endings"
        :key="`e${number}`"
        type="button"
        class="chip"
        :aria-pressed="bars[first]?.ending === number"
        @click="edit({ ending: { ...range, number: bars[first]?.ending === number ? 0 : number } })"
      >
        {{ ordinals[number] }} ending
      </button>
    </div>
    <div class="line">
      <span class="what">Bars</span>
      <button type="button" class="chip" title="Ctrl C" @click="$emit('copy')">Copy</button>
      <button type="button" class="chip" title="Ctrl V" :disabled="!copied" @click="$emit('paste')">
        Paste before
      </button>
      <button type="button" class="chip" title="Insert" @click="$emit('insert')">Insert</button>
      <button type="button" class="chip" title="Delete" @click="$emit('remove')">Remove</button>
    </div>
    <p v-if="copied" class="quiet note">
      {{ copied === 1 ? 'A bar is' : `${copied} bars are` }} copied. Select where to put
      {{ copied === 1 ? 'it' : 'them' }} and paste.
    </p>
  </template>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 6px;
}
.head {
  justify-content: space-between;
}
.functions {
  margin-bottom: 0.7rem;
  font-size: 0.95rem;
}
.functions li {
  margin-bottom: 0.35rem;
}
/* What it is about stands in front; the rest wraps beside it. */
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  position: relative;
  padding-left: 4.2rem;
  margin-bottom: 0.6rem;
}
.what {
  position: absolute;
  left: 0;
  top: 0.3rem;
  font-size: 0.92rem;
  color: var(--stone);
}
.grow {
  flex: 1;
  min-width: 0;
}
.label {
  width: 5.6rem;
}
.line :deep(.p-inputtext) {
  padding: 0.25rem 0.55rem;
}
.small {
  padding: 0.2rem 0.5rem;
  font-size: 0.88rem;
}
.beats {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  margin-right: 4px;
}
.nudge {
  width: 24px;
  height: 24px;
  border: 1px solid var(--line);
  border-radius: 50%;
  background: var(--card);
  line-height: 1;
  cursor: pointer;
}
.chip:disabled {
  color: var(--stone);
  cursor: default;
}
.refused {
  padding: 0.5rem 0.7rem;
  margin-bottom: 0.6rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.note {
  font-size: 0.9rem;
}
</style>
