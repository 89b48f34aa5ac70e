<script setup lang="ts">
import type { ChangeView, NeckMap } from '../../api/client'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'

/** What to add to the box for each chord of the tune: one note a chord. */
defineProps<{ shown: ChangeView }>()
const tune = useTune()
/** The notes that are enough to say a chord, the one that says it best first. */
const adds = (one: NeckMap['chords'][number]) => one.box.missing.filter((lack) => lack.needed)
</script>

<template>
  <div v-if="tune.map" class="box">
    <div class="scroll">
      <table aria-label="What to add to the box, chord by chord">
        <thead>
          <tr>
            <th scope="col">over</th>
            <th scope="col">add</th>
            <th scope="col">where</th>
            <th scope="col">your box holds</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="one in tune.map.chords"
            :key="one.chord"
            :class="{ now: one.chord === shown.leaving.chord, next: one.chord === shown.arriving.chord }"
          >
            <th scope="row">
              <b>{{ signs(one.chord) }}</b> <span class="quiet">{{ signs(one.roman) }}</span>
            </th>
            <td>
              <template v-for="(lack, n) in adds(one)" :key="lack.degree">
                <span v-if="n" class="quiet">then </span>
                <b :class="{ add: !n }">{{ signs(lack.note) }}</b> {{ signs(lack.degree) }}&ensp;
              </template>
              <span v-if="!adds(one).length">nothing</span>
            </td>
            <td>{{ signs(adds(one)[0]?.where ?? '') }}</td>
            <td>
              <template v-for="tone in one.box.has" :key="tone.degree">
                {{ signs(tone.note) }} <span class="quiet">{{ signs(tone.degree) }}</span>&ensp;
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <aside>
      <h2>What tells {{ signs(shown.arriving.chord) }}</h2>
      <p v-if="shown.definingTones.length" class="telling">
        <span v-for="tone in shown.definingTones" :key="tone.degree" class="pebble">
          <b>{{ signs(tone.degree) }}</b> {{ signs(tone.note) }}
        </span>
      </p>
      <p class="quiet">
        {{
          shown.definingTones.length
            ? 'Neither in the chord you leave nor in your box.'
            : 'No tone of it is new: all are in the chord you leave or in your box.'
        }}
      </p>
      <RouterLink class="lead" :to="{ name: 'licks', params: $route.params, query: $route.query }">
        Lead a lick over this change →
      </RouterLink>
    </aside>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 18rem;
  gap: 1.2rem;
}
.scroll {
  height: var(--panel, 18.4rem);
  overflow-y: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
thead th {
  color: var(--stone);
  font-weight: 500;
}
th,
td {
  text-align: left;
  padding: 0.3rem 0.8rem 0.3rem 0.4rem;
  font-weight: 500;
}
.now {
  box-shadow: inset 4px 0 var(--now);
}
.next {
  box-shadow: inset 4px 0 var(--next-fill);
}
.add {
  color: var(--next);
}
aside {
  border-left: 1px solid var(--line);
  padding-left: 1.2rem;
}
.telling {
  display: flex;
  gap: 0.5rem;
  margin: 0.4rem 0 0.3rem;
}
.pebble {
  background: var(--next-fill);
  color: var(--on-fill);
  border-radius: 999px;
  padding: 0.25rem 0.9rem;
}
@media (pointer: coarse) {
  .lead.lead {
    min-height: 44px;
  }
}
.lead {
  display: inline-flex;
  align-items: center;
  min-height: 24px;
  display: inline-block;
  margin-top: 1rem;
  color: var(--now);
  font-weight: 700;
}
@container main (max-width: 52rem) {
  .box {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
