<script setup lang="ts">
import { ref } from 'vue'
import { signs } from '../../controls/spelling'

/** Writing chords without a keyboard: the quality is chosen once, a degree writes and goes on. */
const emit = defineEmits<{ put: [text: string, beside: boolean] }>()

const degrees = ['I', 'bII', 'II', 'bIII', 'III', 'IV', '#IV', 'V', 'bVI', 'VI', 'bVII', 'VII']
const qualities = ['7', 'maj', 'm', 'm7', 'maj7', '9', '13', '6', 'sus4', 'm7b5', 'dim7', '7#9']
const quality = ref('7')
/** What is put stands beside the chords of the bar rather than in their place. */
const beside = ref(false)
</script>

<template>
  <div class="pad" role="group" aria-label="Chord pad">
    <p class="row" role="group" aria-label="Quality">
      <button
        v-for="one in qualities"
        :key="one"
        type="button"
        class="chip"
        :aria-pressed="one === quality"
        @click="quality = one"
      >
        {{ signs(one) }}
      </button>
    </p>
    <p class="row" role="group" aria-label="Degree">
      <button
        v-for="one in degrees"
        :key="one"
        type="button"
        class="chip degree"
        @click="emit('put', one + quality, beside)"
      >
        {{ signs(one) }}
      </button>
    </p>
    <p class="row">
      <button type="button" class="chip" @click="emit('put', '%', false)">as before</button>
      <button type="button" class="chip" @click="emit('put', 'N.C.', false)">N.C.</button>
      <button type="button" class="chip" :aria-pressed="beside" @click="beside = !beside">
        beside what is there
      </button>
    </p>
  </div>
</template>

<style scoped>
.pad {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin-bottom: 0.7rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.chip {
  padding: 0.2rem 0.5rem;
}
.degree {
  min-width: 3.1rem;
  font-weight: 700;
}
</style>
