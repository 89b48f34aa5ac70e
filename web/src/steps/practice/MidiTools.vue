<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Question } from '../../api/client'
import { signs } from '../../controls/spelling'
import { partOf, simulated, useMidi } from './midi'
import type { Drill } from './drill'

/** Answers from an instrument over MIDI, or from the simulated one that ships. */
const props = defineProps<{ drill: Drill; question: Question }>()
const unheard = ref('')
const midi = useMidi((note) => {
  const part = partOf(note, midi.stringsApart.value, props.question.open, props.question.frets)
  unheard.value =
    props.question.needsPlace && !part.place
      ? 'This is asked for by place: send each string on its own channel, or click it.'
      : ''
  if (!unheard.value) void props.drill.give(part)
})
const { names, chosen, stringsApart, problem } = midi
const wanted = ref(false)
async function open() {
  wanted.value = true
  await midi.find()
}
const string = ref(1)
const fret = ref(0)
const strings = computed(() => props.question.strings.map((name, n) => ({ name, string: n + 1 })))
const strike = () => midi.strike((props.question.open[string.value - 1] ?? 0) + fret.value, string.value)
</script>

<template>
  <div class="midi">
    <button v-if="!wanted" type="button" class="plain" @click="open">answer over MIDI</button>
    <template v-else>
      <select
        aria-label="The MIDI instrument"
        :value="chosen"
        @change="midi.choose(($event.target as HTMLSelectElement).value)"
      >
        <option value="">no instrument</option>
        <option v-for="name in names" :key="name">{{ name }}</option>
        <option :value="simulated">a simulated guitar</option>
      </select>
      <label v-if="chosen && chosen !== simulated">
        <input v-model="stringsApart" type="checkbox" /> each string on its own channel
      </label>
      <template v-if="chosen === simulated">
        <select v-model.number="string" aria-label="The string">
          <option v-for="one in strings" :key="one.string" :value="one.string">
            {{ one.string }} {{ signs(one.name) }}
          </option>
        </select>
        <input v-model.number="fret" type="number" min="0" :max="question.frets" aria-label="The fret" />
        <button type="button" class="chip" @click="strike">strike it</button>
      </template>
      <span class="quiet" role="status">{{ unheard || (chosen ? '' : problem) }}</span>
    </template>
  </div>
</template>

<style scoped>
.midi {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
}
.plain {
  border: 0;
  background: none;
  color: var(--stone);
  cursor: pointer;
  padding: 0.2rem 0.3rem;
}
select,
input[type='number'] {
  padding: 0.15rem 0.4rem;
}
input[type='number'] {
  width: 3.6rem;
}
</style>
