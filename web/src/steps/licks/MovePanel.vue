<script setup lang="ts">
import { computed } from 'vue'
import { signs } from '../../controls/spelling'
import HeardTab from '../../tab/HeardTab.vue'
import type { MovesWork } from './moves'

/** A lick over every chord of the tune, three ways side by side, with what each costs. */
const props = defineProps<{ work: MovesWork; strings: string[] }>()
defineEmits<{ keep: [] }>()
const { moves, refusal, choice, chosen } = props.work

const says = computed(() => {
  const changed = [...(chosen.value?.altered.map((a) => a.text) ?? []), ...(chosen.value?.lost ?? [])]
  const caution = chosen.value?.caution ? ` ${chosen.value.caution}` : ''
  return (changed.length ? `${changed.join('; ')}.` : 'Every note as it was.') + caution
})
</script>

<template>
  <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
  <div v-else-if="moves" class="move">
    <div class="scroll">
      <table aria-label="The lick over every chord, three ways">
        <thead>
          <tr>
            <th scope="col">over</th>
            <th v-for="way in moves.methods" :key="way" scope="col">{{ way }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in moves.chords" :key="one.chord">
            <th scope="row">
              <b>{{ signs(one.chord) }}</b> <span class="quiet">{{ signs(one.roman) }}</span>
            </th>
            <td v-for="(m, n) in one.moves" :key="m.method">
              <button
                type="button"
                class="way"
                :disabled="Boolean(m.refused)"
                :aria-pressed="one === choice.over && n === choice.way"
                :aria-label="`${signs(one.chord)}, ${m.method}: ${m.text}`"
                @click="work.choose(one.chord, n)"
              >
                {{ m.text }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <HeardTab
      v-if="chosen?.tab"
      class="heard"
      :tab="chosen.tab"
      :strings="strings"
      label="The moved lick as tab"
      :says="says"
    >
      <button type="button" class="chip" @click="$emit('keep')">Keep as a lick</button>
    </HeardTab>
    <p v-else-if="chosen?.refused" class="refused">{{ signs(chosen.refused) }}.</p>
  </div>
</template>

<style scoped>
.scroll {
  max-height: var(--panel-most, 7.2rem);
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
.heard {
  --tab-height: 156px;
}
.refused {
  margin: 4px 0;
}
</style>
