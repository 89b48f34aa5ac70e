<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { usePlayer } from '../sound/player'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import type { MovesWork } from './moves'
import TabView from './TabView.vue'

/** A lick over every chord of the tune, three ways side by side, with what each costs. */
const props = defineProps<{ work: MovesWork }>()
const tune = useTune()
const player = usePlayer()
const { moves, refusal, choice, chosen } = props.work

const picked = ref<number>()
watch(chosen, () => (picked.value = undefined))
const changed = computed(() => [
  ...(chosen.value?.altered.map((a) => a.sentence) ?? []),
  ...(chosen.value?.lost ?? []),
])
const why = computed(() => chosen.value?.tab?.events[player.event ?? picked.value ?? -1]?.why)
</script>

<template>
  <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
  <div v-else-if="moves && tune.map" class="move">
    <div class="scroll">
      <table aria-label="The lick over every chord, three ways">
        <thead>
          <tr>
            <th scope="col">over</th>
            <th v-for="way in moves.ways" :key="way" scope="col">{{ way }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in moves.chords" :key="one.chord">
            <th scope="row">
              <b>{{ signs(one.chord) }}</b> <span class="quiet">{{ signs(one.roman) }}</span>
            </th>
            <td v-for="(m, n) in one.moves" :key="m.way">
              <button
                type="button"
                class="way"
                :disabled="Boolean(m.refused)"
                :aria-pressed="one === choice.over && n === choice.way"
                :aria-label="`${signs(one.chord)}, ${m.way}: ${m.says}`"
                @click="work.choose(one.chord, n)"
              >
                {{ m.says }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-if="chosen?.tab">
      <TabView
        class="tab"
        label="The moved lick as tab"
        :line="chosen.tab"
        :strings="tune.map.instrument.strings"
        :sounding="player.event"
        :chosen="picked"
        @pick="(index) => (picked = index)"
      />
      <p class="why">
        <template v-if="why">{{ signs(why) }}</template>
        <template v-else-if="changed.length">{{ signs(changed.join('; ')) }}.</template>
        <template v-else>Every note as it was.</template>
        <span v-if="chosen.caution" class="quiet"> {{ chosen.caution }}</span>
      </p>
      <div class="acts">
        <button type="button" class="primary" @click="player.toggle()">
          {{ player.state === 'silent' ? 'Hear it' : 'Stop' }}
        </button>
        <span class="quiet">space</span>
        <button type="button" class="chip" @click="work.keep()">Keep as a lick</button>
      </div>
    </template>
    <p v-else-if="chosen?.refused" class="why">{{ signs(chosen.refused) }}.</p>
  </div>
</template>

<style scoped>
.scroll {
  max-height: 108px;
  overflow-y: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  padding: 0.1rem 0.6rem 0.1rem 0;
  white-space: nowrap;
}
thead th {
  color: var(--stone);
  padding-left: 0.5rem;
}
thead th:first-child {
  padding-left: 0;
}
.way {
  width: 100%;
  border: 0;
  border-radius: 8px;
  background: none;
  padding: 0.25rem 0.5rem;
  text-align: left;
  font-size: 0.9rem;
  cursor: pointer;
}
.way:hover:enabled {
  background: var(--shade);
}
.way[aria-pressed='true'] {
  background: var(--now-tint);
}
.way:disabled {
  color: var(--stone);
  font-style: italic;
  cursor: default;
}
.tab {
  max-height: 156px;
}
.why {
  min-height: 1.4em;
  max-height: 4.1em;
  overflow-y: auto;
  margin: 2px 0 6px;
}
.acts {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
</style>
