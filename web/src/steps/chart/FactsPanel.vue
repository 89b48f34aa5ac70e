<script setup lang="ts">
import { computed } from 'vue'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'

/** What the tune asks of a player, counted. */
const tune = useTune()
const facts = computed(() => tune.read?.facts)
const lasts = computed(() => {
  const seconds = Math.round(facts.value?.seconds ?? 0)
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
})
</script>

<template>
  <template v-if="facts">
    <p>
      <strong>{{ facts.bars }}</strong> bars a chorus, <strong class="tabular">{{ lasts }}</strong> min ·
      <strong>{{ facts.chords.length }}</strong> chords ·
      <strong>{{ facts.changes.length }}</strong> different changes
    </p>
    <p v-if="facts.fastest.length" class="fast">
      Fastest: {{ facts.mostChords }} chords in bar{{ facts.fastest.length > 1 ? 's' : '' }}
      {{ facts.fastest.join(', ') }}
    </p>
    <h2>Chords</h2>
    <ul>
      <li v-for="fact in facts.chords" :key="fact.chord">
        <strong class="chord">{{ signs(fact.chord) }}</strong>
        <div>
          <span class="quiet">{{ fact.times }}×, {{ fact.beats }} beats</span>
          <p>{{ signs(fact.function) }}.</p>
        </div>
      </li>
    </ul>
    <h2>Changes</h2>
    <p v-if="!facts.changes.length" class="quiet">None: this tune stays on one chord.</p>
    <table v-else>
      <tbody>
        <tr v-for="fact in facts.changes" :key="fact.leaving + ' ' + fact.arriving">
          <td>
            <strong>{{ signs(fact.leaving) }} → {{ signs(fact.arriving) }}</strong>
          </td>
          <td class="tabular">{{ fact.bars.length }}×</td>
          <td class="quiet">into bar{{ fact.bars.length > 1 ? 's' : '' }} {{ fact.bars.join(', ') }}</td>
        </tr>
      </tbody>
    </table>
  </template>
</template>

<style scoped>
h2 {
  margin: 0.8rem 0 0.2rem;
}
.fast {
  margin-top: 0.3rem;
}
li {
  display: flex;
  gap: 0.7rem;
  padding: 0.35rem 0;
  border-top: 1px solid var(--line);
  font-size: 0.92rem;
}
.chord {
  flex: none;
  min-width: 4.2rem;
  font-size: 1.1rem;
}
td {
  padding: 0.2rem 0.7rem 0.2rem 0;
  vertical-align: baseline;
}
</style>
