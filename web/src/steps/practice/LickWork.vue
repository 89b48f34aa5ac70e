<script setup lang="ts">
import { computed, onBeforeUnmount, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { usePlayer } from '../../sound/player'
import TabView from '../../tab/TabView.vue'
import { useLearning } from './learning'

/** A lick learned in parts: what is played now, how fast, and whether it was clean. */
const props = defineProps<{ lick: number; wanted: number }>()
const tempo = defineModel<number>('tempo', { default: 0 })
const goal = defineModel<number>('goal', { default: 0 })
const route = useRoute()
const player = usePlayer()
const learning = useLearning(() => props.lick || undefined)
const { kept, refusal, steps, step, now, tab, clean, isWhole, done } = learning

watch(
  () => props.wanted,
  (wanted) => wanted > 0 && (learning.goal.value = wanted),
  { immediate: true },
)
watch(clean, (now) => (tempo.value = now))
watch(learning.goal, (now) => (goal.value = now), { immediate: true })
onBeforeUnmount(() => void player.stop())
useKeys([
  { key: 'p', says: 'play it round and round, and stop', run: learning.toggle },
  { key: 'c', says: 'it was clean: on, or faster', run: learning.wasClean },
  { key: 'x', says: 'not yet: slower', run: learning.notYet },
])
const strings = computed(() => learning.tune.map?.instrument.strings ?? [])
const says = computed(() => {
  if (done.value) return 'It is clean at its goal. Raise the goal, or let it rest.'
  if (isWhole.value) return 'Clean: a step faster. Not yet: a step slower.'
  return 'Slowly and evenly, until it is clean; then the next part. A click on a note cuts it there.'
})
</script>

<template>
  <div class="work">
    <p v-if="refusal" class="warn" role="alert">{{ signs(refusal) }}</p>
    <template v-if="kept && now && tab">
      <div class="head">
        <h2>{{ kept.lick.name }}</h2>
        <b class="tempo tabular">{{ learning.tempo.value }}</b>
        <span class="quiet">
          of
          <input
            v-model.number.lazy="learning.goal.value"
            type="number"
            min="20"
            max="400"
            aria-label="The goal, beats a minute"
          />
          a minute<template v-if="clean"> · clean at {{ clean }}</template>
        </span>
        <RouterLink
          class="chip"
          :to="{ name: 'licks', params: { id: route.params.id }, query: { 'licks.lick': lick } }"
        >
          open it in Licks
        </RouterLink>
      </div>
      <ol class="steps" aria-label="The parts">
        <li v-for="(one, n) in steps" :key="n">
          <button
            type="button"
            class="chip"
            :class="{ past: n < step }"
            :aria-pressed="n === step"
            @click="learning.goTo(n)"
          >
            {{ one.title }}
          </button>
        </li>
      </ol>
      <TabView
        class="tab"
        :label="`${kept.lick.name}, ${now.title}`"
        :line="tab"
        :strings="strings"
        :sounding="player.event"
        :chosen="undefined"
        @pick="learning.cutAt"
      />
      <p class="quiet">{{ says }}</p>
      <div class="acts">
        <button type="button" class="primary" @click="learning.toggle()">
          {{ player.silent ? 'Play it round (p)' : 'Stop (p)' }}
        </button>
        <button type="button" class="chip big" @click="learning.wasClean()">clean (c)</button>
        <button type="button" class="chip big" :disabled="!isWhole" @click="learning.notYet()">
          not yet (x)
        </button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.work {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.head,
.steps,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.4rem 0.9rem;
}
h2 {
  font-size: 1.9rem;
}
.tempo {
  font-size: 2.6rem;
  line-height: 1;
  color: var(--now);
  margin-left: auto;
}
input {
  width: 4.4rem;
  padding: 0.1rem 0.4rem;
}
a.chip {
  text-decoration: none;
  color: inherit;
}
.past {
  color: var(--stone);
}
.tab {
  max-height: var(--panel-most, 15.33rem);
}
.big {
  font-size: 1.1rem;
  padding: 0.45rem 1.2rem;
}
.warn {
  color: var(--next);
}
</style>
