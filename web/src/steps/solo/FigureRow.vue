<script setup lang="ts">
import { computed } from 'vue'
import type { ChorusView } from '../../api/client'

/** The figures of a chorus in a row; each points at its notes. */
const props = defineProps<{ view: ChorusView }>()
const emit = defineEmits<{ mark: [events: number[]] }>()
const percent = (share: number) => `${Math.round(share * 100)} %`

const figures = computed(() => {
  const f = props.view.figures
  const landed = props.view.targets.flatMap((t) => (t.event >= 0 ? [t.event] : []))
  const unheard = props.view.impliedHarmony.filter((d) => d.recognition !== 'heard').flatMap((d) => d.events)
  const lost = f.rests.good < f.rests.of
  return [
    {
      name: 'landings',
      value: `${f.landings} of ${f.changes}`,
      events: landed,
      good: f.landings === f.changes,
    },
    {
      name: 'strong beats',
      value: f.strong.of ? percent(f.strong.good / f.strong.of) : 'none',
      events: f.strong.events,
      good: f.enoughStrongBeats,
    },
    { name: 'rests well', value: `${f.rests.good} of ${f.rests.of}`, events: f.rests.events, good: !lost },
    {
      name: 'heard alone',
      value: `${f.heard} of ${f.chords}`,
      events: unheard,
      good: f.enoughHeard,
    },
    { name: 'space', value: percent(f.space), events: [], good: f.enoughSpace },
    { name: 'notes a second', value: f.shape.perSecond.toFixed(1), events: [], good: true },
    { name: 'widest reach', value: `${Math.round(f.shape.widestMm)} mm`, events: [], good: f.withinSpan },
  ]
})
</script>

<template>
  <ul class="figures" aria-label="The figures">
    <li v-for="f in figures" :key="f.name">
      <button type="button" :disabled="f.events.length === 0" @click="emit('mark', f.events)">
        <span class="name">{{ f.name }}</span>
        <span class="value" :class="{ weak: !f.good }">{{ f.value }}</span>
      </button>
    </li>
    <slot />
  </ul>
</template>

<style scoped>
.figures {
  display: flex;
  align-items: center;
  gap: 0.4rem 0.7rem;
}
button {
  display: flex;
  flex-direction: column;
  border: 0;
  background: none;
  padding: 2px 4px;
  text-align: left;
  cursor: pointer;
  border-radius: 6px;
}
button:disabled {
  cursor: default;
}
button:hover:enabled {
  background: var(--shade);
}
.name {
  font-size: 0.8rem;
  color: var(--stone);
  white-space: nowrap;
}
.value {
  font-size: 1.08rem;
  font-weight: 750;
  color: var(--now);
  white-space: nowrap;
}
.weak {
  color: var(--next);
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
</style>
