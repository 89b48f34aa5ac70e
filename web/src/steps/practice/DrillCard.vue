<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { signs } from '../../controls/spelling'
import { useKeys } from '../../controls/keys'
import { samePlace } from '../../neck/geometry'
import NeckView from '../../neck/NeckView.vue'
import ListenBar from '../../sound/ListenBar.vue'
import { useListening } from '../../sound/listening'
import { useRecording } from '../../sound/recording'
import { withPlayed } from '../../neck/played'
import type { Drill } from './drill'
import { heardPart } from './heardpart'
import { drillMarks } from './marks'
import MidiTools from './MidiTools.vue'
import { typedChoice, typedPart } from './typed'

/** One card: the question, the neck to answer on, and how the answer was marked. */
const props = defineProps<{ drill: Drill }>()
const emit = defineEmits<{ hear: []; done: [] }>()
const { deck, cards, index, question, given, mark, kept, hints, problem, score } = props.drill

/** What is played on the instrument answers, and lights on the neck. */
const recording = useRecording()
const listening = useListening((stroke) => {
  const asked = question.value
  const part = asked && heardPart(stroke, asked)
  // Of all places each is found once: to play it again takes none away.
  const again = part?.place && props.drill.places.value.some((place) => samePlace(place, part.place!))
  if (part && !(again && asked.form === 'all of them')) void props.drill.give(part)
})
const marks = computed(() => {
  const shown = question.value ? drillMarks(question.value, given.value, mark.value) : []
  return withPlayed(shown, recording.sounding, question.value?.position)
})
const neck = computed(() => ({
  ...{ name: '', hasNamedForms: false },
  ...{ strings: question.value?.strings ?? [], frets: question.value?.frets ?? 22 },
}))
const pick = (place: { string: number; fret: number }) => void props.drill.give({ place })

/** What each part of the answer is as far as it is known: its label once marked, a dot while it is given. */
const slots = computed(() => {
  const q = question.value
  if (!q || q.form === 'chosen') return []
  const parts = mark.value?.parts
  if (parts) return parts.map((part) => ({ text: part.label, state: part.state as string }))
  const count = q.form === 'written' ? 0 : Math.max(q.parts, given.value.length)
  return Array.from({ length: count }, (_, n) => {
    const part = given.value[n]
    const text = part?.note ?? (part?.place ? `${part.place.string}:${part.place.fret}` : '')
    return { text, state: part ? 'given' : n === given.value.length ? 'now' : 'open' }
  })
})

const typed = ref('')
const unread = ref(false)
const field = ref<HTMLInputElement>()
const how = computed(() => {
  const q = question.value
  if (!q) return ''
  if (mark.value) return 'Enter goes on'
  if (q.form === 'chosen') return 'Click one, or type its number'
  if (q.form === 'written' || q.byNote) return 'Type the names of the notes, one after the other'
  return q.needsPlace || q.form === 'one of them'
    ? 'Click the neck, or type string and fret: 4 10'
    : 'Click the neck, or type string and fret (4 10) or a note'
})
/** Typing belongs to the question as soon as it is there. */
watch(
  [question, mark],
  () => {
    typed.value = ''
    unread.value = false
    void nextTick(() => field.value?.focus({ preventScroll: true }))
  },
  { immediate: true },
)

async function enter() {
  const q = question.value
  if (!q) return
  if (mark.value) return props.drill.next()
  const text = typed.value
  if (!text.trim()) {
    if (given.value.length > 0) await props.drill.check()
    return
  }
  if (q.form === 'chosen') {
    const choice = typedChoice(text, q.choices)
    unread.value = !choice
    if (choice) await props.drill.check(choice)
    return
  }
  const part = typedPart(text, q)
  unread.value = !part || (q.needsPlace && !part.place && q.form !== 'written')
  if (part && !unread.value) {
    typed.value = ''
    await props.drill.give(part)
  }
}
/** A key that did something writes nothing, also where the browser is told of its letter by itself. */
let taken = false
function key(event: KeyboardEvent) {
  taken = false
  if (typed.value || event.ctrlKey || event.metaKey) return
  const run = {
    h: () => props.drill.hint(),
    s: () => props.drill.next(),
    u: () => kept.value && void props.drill.takeBack(),
    r: () => emit('hear'),
    Backspace: () => props.drill.takeAway(),
    ' ': () => emit('done'),
  }[event.key]
  if (!run) return
  event.preventDefault()
  event.stopPropagation()
  taken = true
  void run()
}
const write = (event: Event) => taken && event.preventDefault()
useKeys([
  { key: 'h', says: 'a hint (it costs)', run: () => props.drill.hint() },
  { key: 's', says: 'skip the card (free)', run: () => void props.drill.next() },
  { key: 'u', says: 'a slip of the finger: take the answer back', run: () => void props.drill.takeBack() },
  { key: 'r', says: 'hear it again', run: () => emit('hear') },
])
</script>

<template>
  <div class="card">
    <p v-if="problem" class="refusal" role="alert">{{ signs(problem) }}</p>
    <template v-if="question">
      <div class="line quiet">
        <span>
          card {{ index + 1 }} of {{ cards.length }} · {{ question.card.kind
          }}<template v-if="question.label"> · {{ signs(question.label) }}</template>
        </span>
        <span class="acts">
          <template v-if="question.form !== 'chosen'">
            <ListenBar v-if="!question.byNote && question.form !== 'written'" :listening="listening" />
            <MidiTools :drill="drill" :question="question" />
          </template>
          <span v-if="score.of">{{ score.right }} of {{ score.of }} right</span>
          <button type="button" class="plain" :disabled="!!mark" @click="drill.hint()">h a hint</button>
          <button type="button" class="plain" @click="drill.next()">s skip</button>
        </span>
      </div>
      <div class="asked">
        <b v-if="question.chord" class="chord">{{ signs(question.chord) }}</b>
        <div class="words">
          <h2>{{ signs(question.title) }}</h2>
          <p class="quiet">{{ signs(question.detail) }}</p>
        </div>
        <ol v-if="slots.length && slots.length <= 9" class="slots" aria-label="Your answer">
          <li v-for="(slot, n) in slots" :key="n" :class="slot.state">
            <span>{{ slot.state === 'wrong' ? `× ${signs(slot.text)}` : signs(slot.text) || '·' }}</span>
          </li>
        </ol>
        <button v-if="question.heard.length" type="button" class="chip hear" @click="emit('hear')">
          hear it again (r)
        </button>
      </div>
      <NeckView
        v-if="question.position"
        class="neck"
        :instrument="neck"
        :span="question.position"
        :marks="marks"
        :spacing="40"
        label="The neck to answer on"
        @pick="pick"
      />
      <div v-else class="no-neck" />
      <div v-if="question.form === 'chosen'" class="choices" role="group" aria-label="The choices">
        <button
          v-for="(choice, n) in question.choices"
          :key="choice"
          type="button"
          class="chip choice"
          :class="{ right: mark?.parts[0]?.label === choice }"
          :disabled="!!mark"
          @click="drill.check(choice)"
        >
          <small>{{ n + 1 }}</small> {{ signs(choice) }}
        </button>
      </div>
      <div class="answer" aria-live="polite">
        <p v-if="mark" class="verdict" :class="mark.right ? 'right' : 'wrong'">
          <b>{{ mark.right ? 'Right.' : mark.got ? `${mark.got} of ${mark.of} right.` : 'Not that.' }}</b>
          {{ signs(mark.text) }}
          <span class="quiet">{{ kept?.text }}</span>
        </p>
        <p v-else-if="hints" class="hint">Hint: {{ signs(question.hint) }}.</p>
      </div>
      <div class="foot">
        <input
          ref="field"
          v-model="typed"
          class="field"
          type="text"
          autocomplete="off"
          autocapitalize="off"
          spellcheck="false"
          aria-label="Answer"
          :class="{ unread }"
          @keydown="key"
          @beforeinput="write"
          @keyup="taken = false"
          @keydown.enter.prevent="enter"
        />
        <span class="quiet how">{{ unread ? 'That is no answer here. ' : '' }}{{ how }}</span>
        <span class="acts">
          <button v-if="kept" type="button" class="chip" @click="drill.takeBack()">
            a slip: take it back (u)
          </button>
          <button v-if="mark" type="button" class="primary" @click="drill.next()">Next card</button>
          <button
            v-else-if="question.form !== 'chosen'"
            type="button"
            class="primary"
            :disabled="!given.length"
            @click="drill.check()"
          >
            Check
          </button>
        </span>
      </div>
    </template>
    <p v-else-if="deck && !cards.length" class="none">{{ deck.text }}</p>
    <p v-else-if="!problem" class="none quiet">The next card…</p>
  </div>
</template>

<style scoped>
.card {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
  flex: 1;
  min-width: 0;
}
.line,
.foot {
  display: flex;
  align-items: center;
  gap: 1rem;
}
.acts {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 0.7rem;
}
.plain {
  border: 0;
  background: none;
  color: var(--stone);
  cursor: pointer;
  padding: 0.2rem 0.3rem;
}
.asked {
  display: flex;
  align-items: center;
  gap: 1.6rem;
  min-height: 4.6rem;
}
.words {
  flex: 1;
  min-width: 0;
}
@container main (max-width: 58rem) {
  .asked {
    flex-wrap: wrap;
  }
}
.chord {
  font-size: 3.6rem;
  line-height: 1;
  font-weight: 800;
  color: var(--now);
}
.words h2 {
  font-size: 1.6rem;
}
.words p {
  font-size: 1.15rem;
}
.slots {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-left: auto;
}
.slots li {
  min-width: 3.2rem;
  padding: 0.4rem 0.7rem;
  border: 2px solid var(--line);
  border-radius: 999px;
  text-align: center;
  font-weight: 700;
}
.slots .right,
.slots .given {
  background: var(--now);
  border-color: var(--now);
  color: var(--on-fill);
}
.slots .now {
  border-style: dashed;
  border-color: var(--stone);
}
.slots .wrong,
.slots .misnamed {
  border-color: var(--next);
  color: var(--next);
}
.slots .missing {
  border-style: dashed;
  color: var(--stone);
}
.hear {
  margin-left: auto;
}
.no-neck {
  flex: 1;
}
.choice {
  font-size: 1.1rem;
  padding: 0.35rem 0.72rem;
}
.choice.right {
  border-color: var(--now);
  box-shadow: 0 0 0 2px var(--now);
  color: var(--now);
  font-weight: 700;
}
.choice small {
  color: var(--stone);
  margin-right: 0.3rem;
}
.answer {
  min-height: 1.7rem;
  font-size: 1.1rem;
}
.verdict.right b {
  color: var(--now);
}
.verdict.wrong b,
.refusal {
  color: var(--next);
}
.field {
  font: inherit;
  width: 7rem;
  padding: 0.35rem 0.8rem;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--paper);
  color: var(--ink);
}
.field.unread {
  border-color: var(--next);
}
.foot {
  margin-top: auto;
}
.how {
  flex: 1;
  min-width: 0;
}
.none {
  padding: 2rem 0;
  font-size: 1.2rem;
}
</style>
