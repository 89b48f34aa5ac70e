<script setup lang="ts">
import { className } from '../../controls/classes'
import { computed } from 'vue'
import type { Path, PathTarget } from '../../api/client'
import { signs } from '../../controls/spelling'
import { useView } from '../../address/view'

/** The landings of the whole chorus, the strategies side by side. */
const props = defineProps<{ paths: Path[]; strategy: string; refusal: string; pins: number }>()
defineEmits<{ unpin: [tick: number]; clear: [] }>()
const view = useView()

const rows = computed(
  () =>
    props.paths[0]?.landings.map((first, n) => ({ ...first, all: props.paths.map((p) => p.landings[n]!) })) ??
    [],
)
const here = computed(() => view.change.value?.tick)
function goTo(l: PathTarget) {
  const change = view.changes.value.find((c) => c.tick === l.change)
  if (change) void view.goTo(change.leaving)
}
const now = computed(() =>
  props.paths.find((p) => p.strategy === props.strategy)?.landings.find((l) => l.change === here.value),
)
</script>

<template>
  <p v-if="refusal" role="alert">
    {{ signs(refusal) }}.
    <button type="button" class="chip" @click="$emit('clear')">Remove all pins</button>
  </p>
  <div v-else class="path">
    <div class="scroll">
      <table aria-label="Landings by target strategy">
        <thead>
          <tr>
            <th scope="col">bar</th>
            <th scope="col">into</th>
            <th v-for="p in paths" :key="p.strategy" scope="col">
              <button
                type="button"
                class="chip"
                :aria-pressed="p.strategy === strategy"
                @click="view.set({ strategy: p.strategy })"
              >
                {{ p.strategy }}
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.change" :class="{ here: row.change === here }">
            <th scope="row">
              <button
                type="button"
                class="bar tabular"
                :aria-label="`Go to bar ${row.bar}`"
                @click="goTo(row)"
              >
                {{ row.bar }}<template v-if="row.beat > 1">.{{ row.beat }}</template>
              </button>
            </th>
            <td>
              <b>{{ signs(row.chord) }}</b>
            </td>
            <td
              v-for="(l, n) in row.all"
              :key="paths[n]!.strategy"
              :class="{ chosen: paths[n]!.strategy === strategy }"
            >
              <b>{{ signs(l.degree) }}</b> {{ signs(l.note) }}
              <span class="quiet tabular">{{ l.string }}:{{ l.fret }}</span>
            </td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <th scope="row" colspan="2">travel</th>
            <td v-for="p in paths" :key="p.strategy" class="tabular">
              {{ p.frets }} frets, {{ p.strings }} strings
            </td>
          </tr>
        </tfoot>
      </table>
    </div>
    <aside>
      <h2>This landing</h2>
      <template v-if="now">
        <p>
          <b>{{ signs(now.note) }}</b>, the {{ signs(now.degree) }} of {{ signs(now.chord) }}, string
          {{ now.string }} fret {{ now.fret }}
        </p>
        <p class="quiet">{{ signs(now.text) }}.</p>
        <p v-if="now.written" class="quiet">
          Over the written {{ signs(now.written.chord) }} it is the {{ signs(now.written.degree) }}:
          {{ className(now.written.class) }}.
        </p>
        <p v-if="now.pinned">
          <button type="button" class="chip" @click="$emit('unpin', now.change)">Remove the pin</button>
        </p>
        <p v-else class="quiet">Click another tone of {{ signs(now.chord) }} on the neck to pin it.</p>
      </template>
      <p v-if="pins > 0">
        <button type="button" class="chip" @click="$emit('clear')">
          Remove {{ pins > 1 ? `all ${pins} pins` : 'the only pin' }}
        </button>
      </p>
    </aside>
  </div>
</template>

<style scoped>
.path {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 17rem;
  gap: 1.2rem;
}
.scroll {
  height: var(--panel, 18.4rem);
  overflow-y: auto;
  scrollbar-gutter: stable;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--stone);
}
thead th {
  position: sticky;
  top: 0;
  background: var(--card);
  padding-bottom: 3px;
}
tfoot {
  position: sticky;
  bottom: 0;
  background: var(--card);
}
td {
  padding: 0.14rem 0.6rem 0.14rem 0.3rem;
  white-space: nowrap;
}
tr.here {
  background: var(--next-tint);
}
td.chosen {
  background: var(--now-tint);
}
.bar {
  border: 0;
  background: none;
  cursor: pointer;
  text-decoration: underline;
  padding: 0 0.4rem;
}
aside {
  border-left: 1px solid var(--line);
  padding-left: 1.1rem;
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
@container main (max-width: 52rem) {
  .path {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
