<script setup lang="ts">
import AppIcon from '../../controls/AppIcon.vue'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { LayoutChoice } from '../../api/client'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { exerciseQuery } from '../../address/exercise'
import { labels, overlays, useMapQuery } from './address'
import { chosenLayout, layoutText, moveBound, readLayout } from './layouts'
import { walked } from './walked'

/** Above the neck: what is laid over the chord, which degrees are shown, and how. */
const props = defineProps<{
  degrees: string[]
  hidden: Set<string>
  layouts: LayoutChoice[]
  /** The degree that the arpeggio laid over stands on, if one is. */
  standsOn?: string
  /** Whether a form can be followed from chord to chord. */
  slides: boolean
}>()
defineEmits<{ hide: [degree: string]; hear: [] }>()

const query = useMapQuery()
const route = useRoute()
const { over, label, layout, slide, full } = query
const laid = computed(() => readLayout(layout.value))
const choice = computed(() => chosenLayout(props.layouts, laid.value))
const options = computed(() => props.layouts.map((one) => ({ value: layoutKey(one), text: one.text })))
const layoutKey = (one: LayoutChoice) => `${one.kind} ${one.from ?? ''}`
function choose(key: string) {
  const one = props.layouts.find((each) => layoutKey(each) === key)
  if (one) void query.set({ layout: layoutText(one) })
}
/** What is laid out here, as an exercise. */
const walk = computed(() => ({
  name: 'exercise',
  params: route.params,
  query: { ...route.query, ...exerciseQuery(walked(over.value, laid.value, props.standsOn)) },
}))
const bounds = computed(() => {
  const { unit, least = 0, most = 0 } = choice.value ?? {}
  if (!unit) return undefined
  return { unit, all: Array.from({ length: most - least + 1 }, (_, n) => String(least + n)) }
})
function chooseBound(end: 'low' | 'high', to: string) {
  void query.set({ layout: layoutText(moveBound(laid.value, end, Number(to))) })
}
</script>

<template>
  <div class="bar">
    <span class="group" role="group" aria-label="Overlay">
      <button
        v-for="o in overlays"
        :key="o.name"
        type="button"
        class="chip"
        :aria-pressed="over === o.name"
        @click="query.set({ over: o.name })"
      >
        {{ o.title }}
      </button>
    </span>
    <span class="group" role="group" aria-label="Degrees shown">
      <button
        v-for="degree in degrees"
        :key="degree"
        type="button"
        class="degree"
        :aria-label="`Show the ${signs(degree)}`"
        :aria-pressed="!hidden.has(degree)"
        @click="$emit('hide', degree)"
      >
        {{ signs(degree) }}
      </button>
    </span>
    <span class="group right">
      <PillSelect
        label="Layout"
        :chosen="choice ? layoutKey(choice) : ''"
        :options="options"
        @choose="choose"
      />
      <template v-if="bounds">
        <PillSelect
          :label="`First ${bounds.unit}`"
          :chosen="String(laid.low ?? 0)"
          :options="named(bounds.all)"
          @choose="(one) => chooseBound('low', one)"
        />
        –
        <PillSelect
          :label="`Last ${bounds.unit}`"
          :chosen="String(laid.high ?? 0)"
          :options="named(bounds.all)"
          @choose="(one) => chooseBound('high', one)"
        />
      </template>
      <PillSelect
        label="Labels"
        :chosen="label"
        :options="named([...labels])"
        @choose="(name) => query.set({ label: labels.find((one) => one === name) })"
      />
      <button
        type="button"
        class="chip"
        :aria-pressed="slide"
        :disabled="!slides"
        title="Each chord at its own form's place, instead of staying in position"
        @click="query.set({ slide: !slide })"
      >
        slide
      </button>
      <button type="button" class="chip" :aria-pressed="full" @click="query.set({ full: !full })">
        full neck
      </button>
      <button type="button" class="chip" aria-label="Hear the shape" @click="$emit('hear')">
        <AppIcon name="volume" />
      </button>
      <RouterLink class="chip ask" title="Walk it through the chords, as an exercise" :to="walk">
        walk it
      </RouterLink>
      <RouterLink
        class="chip ask"
        title="Drills about this tune's chords in its positions"
        :to="{ name: 'practice', params: route.params, query: { 'practice.page': 'drill' } }"
      >
        ask me
      </RouterLink>
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 30px;
  margin-bottom: 4px;
  font-size: 0.88rem;
}
.group {
  display: flex;
  align-items: center;
  gap: 4px;
}
.right {
  margin-left: auto;
}
@container main (max-width: 71rem) {
  .bar,
  .group {
    flex-wrap: wrap;
  }
}
.bar .chip {
  padding: 0.14rem 0.6rem;
}
.ask {
  color: inherit;
  text-decoration: none;
}
/* A degree that is hidden is struck out, not only paler. */
.degree {
  min-width: 28px;
  border: 1.5px solid var(--now);
  border-radius: 999px;
  background: var(--card);
  color: var(--now);
  font-weight: 700;
  padding: 0.1rem 0.4rem;
  cursor: pointer;
}
@media (pointer: coarse) {
  .degree {
    min-width: 44px;
  }
}
.degree[aria-pressed='false'] {
  border: 1.5px dashed var(--stone);
  color: var(--stone);
  font-weight: 450;
  text-decoration: line-through;
}
</style>
