<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { SessionBlock } from '../../api/client'
import { signs } from '../../controls/spelling'

/** What is done in a block that is no drill: what to do, and the view to do it in. */
const props = defineProps<{ block: SessionBlock }>()
const went = defineModel<string>('went', { default: '' })
const tempo = defineModel<number>('tempo', { default: 0 })
const note = defineModel<string>('note', { default: '' })
const route = useRoute()

const says: Record<string, string> = {
  'warm-up':
    'Play slowly, in the middle of the neck, nothing wide. Long notes, loose hands. Stop at any pain.',
  lick: 'Cut it where it breathes: one part at half speed, looped, until it is clean; then the next, the join, the whole. Raise the tempo by a step when it was clean, lower it when not.',
  exercise:
    'Round and round, as slow as it is clean; then a step faster. The tempo at which it was clean is kept.',
  tune: 'Play it through over the band, by a routine. Write down which changes were missed.',
  free: 'Play over the band, whatever comes. Nothing is marked.',
  phrase:
    'Four bars of your own with a limit: three notes only; or end on the 3 of IV; or begin off the beat. Write it down and keep it as a lick.',
  break: 'Hands down, shoulders low, look far away. Nobody gets better without breaks.',
  note: 'How did it go? What should come first the next time?',
}
const to = computed(() => {
  const id = props.block.kind === 'tune' && props.block.item ? props.block.item : Number(route.params.id)
  switch (props.block.kind) {
    case 'lick':
      return { name: 'licks', params: { id: route.params.id }, query: { 'licks.lick': props.block.item } }
    case 'exercise':
      return {
        name: 'exercise',
        params: { id: route.params.id },
        query: { 'exercise.id': props.block.item },
      }
    case 'tune':
    case 'free':
      return { name: 'play', params: { id } }
    case 'phrase':
      return {
        name: 'licks',
        params: { id: route.params.id },
        query: { 'licks.fresh': 'yes', 'licks.panel': 'write' },
      }
    default:
      return undefined
  }
})
const where: Record<string, string> = {
  lick: 'Open it in Licks',
  exercise: 'Open it in Exercises',
  tune: 'Open it in Play',
  free: 'Open Play',
  phrase: 'Write it in Licks',
}
const judged = computed(() => ['lick', 'exercise', 'tune', 'phrase', 'note'].includes(props.block.kind))
</script>

<template>
  <div class="work">
    <h2>{{ signs(block.title) }}</h2>
    <p class="detail quiet">{{ signs(block.detail ?? '') }}</p>
    <p class="says">{{ says[block.kind] }}</p>
    <p class="quiet">{{ signs(block.why ?? '') }}</p>
    <RouterLink v-if="to" class="primary open" :to="to">{{ where[block.kind] }}</RouterLink>
    <div v-if="judged" class="how">
      <div class="choices" role="group" aria-label="How it went">
        <span class="quiet">it went</span>
        <button
          v-for="one in ['rough', 'fair', 'clean']"
          :key="one"
          type="button"
          class="chip"
          :aria-pressed="went === one"
          @click="went = went === one ? '' : one"
        >
          {{ one }}
        </button>
        <label v-if="['lick', 'exercise', 'tune'].includes(block.kind)" class="tempo">
          at <input v-model.number="tempo" type="number" min="0" max="300" aria-label="Tempo reached" /> a
          minute
        </label>
      </div>
      <textarea
        v-model="note"
        rows="3"
        maxlength="2000"
        aria-label="A note on how it went"
        placeholder="A note, if there is something to say"
      />
    </div>
  </div>
</template>

<style scoped>
.work {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  align-items: flex-start;
}
h2 {
  font-size: 2.2rem;
}
.detail {
  font-size: 1.2rem;
}
.says {
  font-size: 1.3rem;
  max-width: 44rem;
}
.open {
  text-decoration: none;
}
.how {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  width: min(44rem, 100%);
}
.choices {
  margin: 0;
}
input,
textarea {
  font: inherit;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 10px;
  padding: 0.3rem 0.6rem;
}
input {
  width: 4.6rem;
}
textarea {
  width: 100%;
}
</style>
