<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, onMounted, ref } from 'vue'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { useLicks } from '../../document/licks'
import { useTune } from '../../document/tune'
import type { Etudes } from './etude'

/** Etudes: licks and exercises that are taken, to be joined by chromatic runs over the form. */
const props = defineProps<{ etudes: Etudes }>()
const tune = useTune()
const licks = useLicks()
const { choices, taken, partBars, choruses, ending, made } = props.etudes
onMounted(() => licks.loaded || void licks.load().catch(tune.tell))

const find = ref('')
/** At most so many are listed; the rest is found by words. */
const most = 40
const listed = computed(() => {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean)
  const fits = choices.value.filter((c) => words.every((word) => c.name.toLowerCase().includes(word)))
  return [
    ...fits.filter((c) => taken.value.includes(c.key)),
    ...fits.filter((c) => !taken.value.includes(c.key)),
  ]
})
const numbers = (all: number[]) => named(all.map(String))
</script>

<template>
  <div class="etude">
    <p class="quiet">Take licks and exercises; they are joined over the form by chromatic runs.</p>
    <InputText v-model="find" size="small" type="search" aria-label="Find parts" placeholder="find parts" />
    <div class="choices parts" role="group" aria-label="Parts">
      <button
        v-for="c in listed.slice(0, most)"
        :key="c.key"
        type="button"
        class="chip"
        :aria-pressed="taken.includes(c.key)"
        @click="etudes.toggle(c.key)"
      >
        {{ c.name }}
      </button>
    </div>
    <div class="wishes">
      <span class="quiet">bars of a part</span>
      <PillSelect
        label="Bars of a part"
        :chosen="String(partBars)"
        :options="numbers([1, 2, 4])"
        @choose="(n) => (partBars = Number(n))"
      />
      <span class="quiet">choruses</span>
      <PillSelect
        label="Choruses"
        :chosen="String(choruses)"
        :options="numbers([1, 2, 3, 4])"
        @choose="(n) => (choruses = Number(n))"
      />
      <span class="quiet">it ends</span>
      <PillSelect
        label="How it ends"
        :chosen="ending || tune.choices?.exercises.endings[0]"
        :options="named(tune.choices?.exercises.endings)"
        @choose="(one) => (ending = one)"
      />
    </div>
    <button type="button" class="primary" :disabled="!taken.length" @click="etudes.make()">
      {{ made.length ? 'Make others' : 'Make etudes' }}
    </button>
  </div>
</template>

<style scoped>
.etude {
  display: flex;
  flex-direction: column;
  gap: 6px;
  align-items: stretch;
}
.parts {
  max-height: var(--panel-most, 10rem);
  overflow-y: auto;
  margin: 0;
}
.wishes {
  display: grid;
  grid-template-columns: auto 1fr;
  justify-items: start;
  align-items: center;
  gap: 4px 10px;
  font-size: 0.9rem;
}
.primary {
  align-self: flex-start;
}
</style>
