<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { signs } from '../../controls/spelling'
import type { FigureBeside, TakeVerdict } from '../../api/client'

/** The verdict of a take: what to mend first, what was good, the figures, and how time and pitch lay. */
const props = defineProps<{
  verdict: TakeVerdict
  /** The figures of an earlier take. */
  beside?: FigureBeside[]
}>()
const emit = defineEmits<{ mark: [events: number[]]; hear: [event: number]; drill: [cards: string[]] }>()
const more = ref(false)
watch(
  () => props.verdict,
  () => (more.value = false),
)
const shown = computed(() =>
  more.value ? [...props.verdict.first, ...props.verdict.rest] : props.verdict.first,
)
/** What was good: as much as is read at a glance. */
const praised = computed(() => (more.value ? props.verdict.good : props.verdict.good.slice(0, 4)))
const hidden = computed(() => props.verdict.rest.length + Math.max(0, props.verdict.good.length - 4))
function point(events: number[]) {
  emit('mark', events)
  if (events.length) emit('hear', events[0]!)
}
/** How late a bar is, as a place from −60 to 60 ms. */
const place = (late: number) => 50 + Math.max(-50, Math.min(50, (late / 60) * 50))
const before = computed(() => new Map(props.beside?.map((one) => [one.id, one])))
/** What has become of a figure since the take before. */
const signOf = { better: '↑', worse: '↓', same: '', other: '' }
const left = computed(() => props.verdict.pairs.filter((p) => p.kind === 'left out').length)
</script>

<template>
  <div class="verdict">
    <section class="first" aria-label="What to mend first">
      <h3>First</h3>
      <ol v-if="shown.length">
        <li v-for="f in shown" :key="f.name + f.text">
          <button type="button" class="finding" @click="point(f.events)">
            <b>{{ f.name }}</b><br />{{ signs(f.text) }}.
          </button>
        </li>
      </ol>
      <p v-else>Nothing that a listener would mind.</p>
      <p v-if="verdict.missed.length" class="missed">
        <button
          v-for="m in verdict.missed.slice(0, 4)"
          :key="m.text"
          type="button"
          class="chip"
          :title="signs(m.text)"
          @click="point([m.event])"
        >
          {{ signs(m.change) }}, bar {{ m.bar }}
        </button>
        <button
          type="button"
          class="chip drill"
          @click="emit('drill', [...new Set(verdict.missed.map((m) => m.card))])"
        >
          drill {{ verdict.missed.length === 1 ? 'this change' : 'these changes' }} (d)
        </button>
      </p>
      <button
        v-if="verdict.rest.length"
        type="button"
        class="chip"
        :aria-pressed="more"
        @click="more = !more"
      >
        {{ more ? 'only the first' : `${hidden} more` }}
      </button>
    </section>
    <section class="good" aria-label="What was good">
      <h3>Good</h3>
      <ul>
        <li v-for="f in praised" :key="f.name + f.text">
          <button type="button" class="finding" @click="point(f.events)">{{ signs(f.text) }}.</button>
        </li>
        <li v-if="!verdict.good.length" class="quiet">It was played to the end.</li>
      </ul>
    </section>
    <section aria-label="The figures">
      <table>
        <thead v-if="beside?.length">
          <tr>
            <th scope="col"><span class="hidden">figure</span></th>
            <th scope="col">this</th>
            <th scope="col">before</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in verdict.rows" :key="row.id">
            <th scope="row">{{ row.name }}</th>
            <td :class="{ low: !row.good }">{{ row.text }}</td>
            <td v-if="before.get(row.id)" class="before" :title="before.get(row.id)!.difference">
              {{ before.get(row.id)!.before }}
              <span role="img" :aria-label="before.get(row.id)!.difference">{{
                signOf[before.get(row.id)!.difference]
              }}</span>
            </td>
          </tr>
          <tr v-if="left">
            <th scope="row">of the plan</th>
            <td>{{ left }} left out</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section class="time" aria-label="How early or late each bar is">
      <h3>Bar by bar <span class="quiet">early · late</span></h3>
      <div
        v-for="b in verdict.timing.bars"
        :key="b.bar"
        class="row"
        :title="`bar ${b.bar}: ${b.late} ms beside the rest`"
      >
        <span class="number">{{ b.bar }}</span>
        <span class="track"><span class="dot" :style="{ left: `${place(b.late)}%` }" /></span>
      </div>
      <template v-if="verdict.bends.length">
        <h3>Bends</h3>
        <button
          v-for="b in verdict.bends.slice(0, 6)"
          :key="b.note"
          type="button"
          class="chip"
          @click="point([verdict.heard[b.note]?.event ?? 0])"
        >
          {{ b.text }}
        </button>
      </template>
    </section>
  </div>
</template>

<style scoped>
.verdict {
  display: grid;
  grid-template-columns: 1.2fr 1.2fr auto 0.9fr;
  gap: 20px;
}
@container main (max-width: 58rem) {
  .verdict {
    grid-template-columns: minmax(0, 1fr);
  }
}
h3 {
  margin: 0 0 4px;
  font-size: 1rem;
}
ol,
ul {
  margin: 0 0 6px;
  padding-left: 1.2em;
}
.finding {
  border: 0;
  background: none;
  color: inherit;
  padding: 2px 4px;
  text-align: left;
  cursor: pointer;
  font: inherit;
}
.finding:hover {
  background: var(--shade);
  border-radius: 6px;
}
.first b {
  color: var(--next);
}
th,
td {
  white-space: nowrap;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--stone);
  padding: 1px 12px 1px 0;
}
td {
  font-weight: 650;
}
td.low {
  color: var(--next);
}
.before {
  font-weight: 400;
  color: var(--stone);
  padding-left: 14px;
  white-space: nowrap;
}
.missed {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 0 0 6px;
}
.hidden {
  position: absolute;
  clip-path: inset(50%);
}
.row {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 13px;
}
.number {
  width: 1.6em;
  text-align: right;
  font-size: 0.8rem;
  color: var(--stone);
}
.track {
  position: relative;
  flex: 1;
  height: 2px;
  background: linear-gradient(
    to right,
    var(--line) 49.5%,
    var(--stone) 49.5%,
    var(--stone) 50.5%,
    var(--line) 50.5%
  );
}
.dot {
  position: absolute;
  top: -4px;
  width: 10px;
  height: 10px;
  margin-left: -5px;
  border-radius: 50%;
  background: var(--now);
}
.time .chip {
  margin: 0 4px 4px 0;
}
@container main (max-width: 28rem) {
  .verdict th,
  .verdict td,
  .verdict .before {
    white-space: normal;
  }
}
</style>
