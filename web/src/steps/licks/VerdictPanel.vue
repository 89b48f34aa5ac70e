<script setup lang="ts">
import { className } from '../../controls/classes'
import { ref, watch } from 'vue'
import { signs } from '../../controls/spelling'
import HeardTab from '../../tab/HeardTab.vue'
import type { VerdictWork } from './verdict'

/** What can be said of a lick: figures with the notes they come from, and repairs. */
const props = defineProps<{ work: VerdictWork; strings: string[] }>()
defineEmits<{ keep: [] }>()
const { verdict, refusal, repaired } = props.work

const picked = ref<number>()
/** The notes that the figure chosen speaks of. */
const marked = ref<number[]>([])
watch(verdict, () => {
  picked.value = undefined
  marked.value = []
})
const percent = (share: number) => `${Math.round(share * 100)} %`
const ends = { question: 'ends like a question', answer: 'ends like an answer', open: 'ends open' } as const
const list = (tones: { degree: string; note: string }[]) =>
  tones.map((t) => `${t.degree} ${t.note}`).join(', ') || 'none'
</script>

<template>
  <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
  <div v-else-if="verdict" class="verdict">
    <HeardTab
      v-model:picked="picked"
      class="heard"
      label="The lick as tab"
      :tab="verdict.tab"
      :strings="strings"
      :marked="marked"
      :says="verdict.lost.join('; ')"
    >
      <template #between>
        <div class="figures">
          <table aria-label="The figures">
            <tbody>
              <tr>
                <th scope="row">
                  <button type="button" class="figure" @click="marked = verdict.strong.events">
                    strong beats
                  </button>
                </th>
                <td>
                  <b>{{ verdict.strong.good }} of {{ verdict.strong.of }}</b> chord tones
                </td>
              </tr>
              <tr>
                <th scope="row">
                  <button type="button" class="figure" @click="marked = verdict.rests.events">
                    rests on
                  </button>
                </th>
                <td>
                  <b>{{ verdict.rests.good }} of {{ verdict.rests.of }}</b> chord tones or colour
                </td>
              </tr>
              <tr v-for="l in verdict.landings" :key="l.chord">
                <th scope="row">
                  <button type="button" class="figure" :disabled="l.event < 0" @click="marked = [l.event]">
                    into {{ signs(l.chord) }}
                  </button>
                </th>
                <td>
                  {{
                    l.timing === 'none'
                      ? 'nothing lands'
                      : signs(`${l.degree}, ${className(l.class ?? '')}, ${l.timing}`)
                  }}
                </td>
              </tr>
              <tr v-for="c in verdict.coverage" :key="c.chord">
                <th scope="row">
                  <button type="button" class="figure" @click="marked = c.events">
                    {{ signs(c.chord) }} gets
                  </button>
                </th>
                <td>
                  {{ signs(list(c.got)) }}
                  <span v-if="c.missed.length" class="quiet">without {{ signs(list(c.missed)) }}</span>
                </td>
              </tr>
              <tr v-for="d in verdict.impliedHarmony" :key="`${d.chord} dropped`">
                <th scope="row">
                  <button type="button" class="figure" @click="marked = d.events">without the band</button>
                </th>
                <td>{{ signs(d.text) }}</td>
              </tr>
              <tr v-for="(e, n) in verdict.ends" :key="`end ${e.event} ${n}`">
                <th scope="row">
                  <button type="button" class="figure" @click="marked = [e.event]">
                    {{ n === 0 ? 'begins' : 'ends' }}
                  </button>
                </th>
                <td>{{ signs(e.text) }}</td>
              </tr>
              <tr v-for="r in verdict.returns" :key="r.text">
                <th scope="row">
                  <button type="button" class="figure" @click="marked = r.events">returns</button>
                </th>
                <td>{{ r.text }}</td>
              </tr>
              <tr>
                <th scope="row">shape</th>
                <td>
                  {{ ends[verdict.shape.ends] }}; {{ percent(verdict.shape.space) }} silence,
                  {{ verdict.shape.perSecond.toFixed(1) }} notes a second
                </td>
              </tr>
              <tr>
                <th scope="row">hand</th>
                <td>
                  {{ verdict.shape.shifts }} shifts, widest reach {{ Math.round(verdict.shape.widestMm) }} mm
                </td>
              </tr>
            </tbody>
          </table>
          <ul aria-label="Notes that could be better">
            <li v-for="o in verdict.issues" :key="o.event">
              <button type="button" class="note" @click="picked = o.event">{{ signs(o.text) }}</button>
              <button
                v-if="o.repair"
                type="button"
                class="chip"
                :aria-label="`Repair note ${o.event + 1}: ${signs(o.repair)}`"
                @click="work.repair(o.event)"
              >
                {{ signs(o.repair) }}
              </button>
            </li>
            <li v-if="!verdict.issues.length">Every note is where it may be.</li>
          </ul>
        </div>
      </template>
      <template v-if="repaired.length">
        <button type="button" class="chip" @click="$emit('keep')">Keep it repaired</button>
        <button type="button" class="chip" @click="work.asItWas()">As it was</button>
      </template>
    </HeardTab>
  </div>
</template>

<style scoped>
.heard {
  --tab-height: 146px;
}
.figures {
  display: grid;
  grid-template-columns: minmax(0, 10fr) minmax(0, 12fr);
  gap: 1rem;
  height: var(--panel, 9.2rem);
  overflow-y: auto;
  font-size: 0.92rem;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--stone);
  padding-right: 0.8rem;
  white-space: nowrap;
  vertical-align: baseline;
}
li {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 0.6rem;
  margin-bottom: 3px;
}
.figure,
.note {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
}
.figure {
  color: inherit;
}
.figure:hover:enabled,
.note:hover {
  text-decoration: underline;
}
.chip {
  padding: 0.08rem 0.6rem;
  font-size: 0.88rem;
  flex: none;
}
@container main (max-width: 52rem) {
  .figures {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
