<script setup lang="ts">
import { className } from '../../controls/classes'
import { computed } from 'vue'
import type { Functions } from '../../api/client'
import PagedTab from '../../tab/PagedTab.vue'
import { signs } from '../../controls/spelling'
import { useView } from '../../address/view'
import { bends } from './bends'

/** A few fretted notes over every chord, and the motif they make when bent to follow. */
const props = defineProps<{ functions: Functions | undefined; refusal: string; own: boolean }>()
defineEmits<{ small: [] }>()
const view = useView()
const now = computed(() => view.change.value?.leaving.chord)
</script>

<template>
  <p v-if="refusal" role="alert">
    {{ signs(refusal) }}.
    <button type="button" class="chip" @click="$emit('small')">Back to the small box</button>
  </p>
  <div v-else-if="props.functions" class="bends">
    <div class="scroll">
      <table aria-label="What each note is over each chord, as it lies and bent">
        <thead>
          <tr>
            <th scope="col">note</th>
            <th v-for="c in props.functions.chords" :key="c" scope="col" :class="{ now: c === now }">
              {{ signs(c) }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in props.functions.rows" :key="`${row.string}:${row.fret}`">
            <th scope="row">
              <b>{{ signs(row.note) }}</b> <span class="tabular">{{ row.string }}:{{ row.fret }}</span>
            </th>
            <td
              v-for="(f, n) in row.functions"
              :key="n"
              :title="signs(f.text)"
              :class="{ now: props.functions.chords[n] === now }"
            >
              <span class="take" :class="{ chordTone: f.isChordTone }">{{
                signs(f.bent[f.bend]?.degree ?? '')
              }}</span>
              {{ f.vibrato ? 'shake' : f.bend ? `bend ${bends[f.bend]}` : 'pass' }}
              <span class="others">
                <span v-for="(b, up) in f.bent" :key="up" :class="b.class" :title="className(b.class)"
                  >{{ up ? `${bends[up]} ` : '' }}{{ signs(b.degree) }}</span
                >
              </span>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet key">
        Filled: a chord tone when played so. Small: as it lies, then bent ½, 1 and 1½ steps up, chord tones in
        bold. Click notes on the neck to take or leave them. Warm up before wide bends, stop at any pain.
        <button v-if="own" type="button" class="chip" @click="$emit('small')">Back to the small box</button>
      </p>
    </div>
    <PagedTab class="motif" :tab="props.functions.motif" label="The motif as tab" :most="14" />
  </div>
</template>

<style scoped>
.bends {
  display: grid;
  grid-template-columns: minmax(0, 9fr) minmax(0, 11fr);
  gap: 1.2rem;
}
.scroll {
  height: var(--panel, 18.4rem);
  overflow: auto;
}
table {
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  padding: 0.2rem 0.7rem 0.2rem 0;
  white-space: nowrap;
}
thead th {
  padding-left: 0.5rem;
  font-weight: 700;
}
td {
  padding: 0.2rem 0.9rem 0.2rem 0.5rem;
  white-space: nowrap;
}
.now {
  background: var(--now-tint);
}
/* What to play: filled where it is a chord tone then. */
.take {
  display: inline-block;
  min-width: 2.3rem;
  padding: 0.05rem 0.3rem;
  border: 2px dashed var(--now);
  border-radius: 999px;
  text-align: center;
  font-weight: 750;
  color: var(--now);
}
.take.chordTone {
  border-style: solid;
  background: var(--now);
  color: var(--on-fill);
}
.others {
  display: flex;
  gap: 0.55rem;
  font-size: 0.8rem;
  color: var(--stone);
}
.others .chordTone {
  color: var(--ink);
  font-weight: 700;
}
.key {
  margin-top: 0.5rem;
  font-size: 0.85rem;
}
.motif :deep(.scroller) {
  max-height: var(--panel-most, 14rem);
}
@container main (max-width: 52rem) {
  .bends {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
