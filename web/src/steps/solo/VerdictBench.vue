<script setup lang="ts">
import { ref, watch } from 'vue'
import type { ChorusEdit, ChorusView } from '../../api/client'
import { signs } from '../../controls/spelling'

/** What is said of a chorus in words: what could be better with its repairs, and what is well. */
const props = defineProps<{
  view: ChorusView
  preview: (edit: ChorusEdit) => Promise<ChorusView> | undefined
}>()
const emit = defineEmits<{ mark: [events: number[]]; go: [tick: number]; repair: [edit: ChorusEdit] }>()

/** The repair that is looked at before it is made, and what would come of it. */
const looked = ref<{ says: string; edit: ChorusEdit; before: number; after: ChorusView }>()
watch(
  () => props.view,
  () => (looked.value = undefined),
)
async function look(says: string, edit: ChorusEdit) {
  const after = await props.preview(edit)
  if (after) looked.value = { says, edit, before: props.view.issues.length, after }
}
/** Whether the single notes and places are listed. */
const opened = ref(false)
/** Where the notes of a finding begin, or the top of the chorus. */
const tickOf = (events: number[]) => props.view.tab.events[events[0] ?? 0]?.tick ?? 0
function point(events: number[], tick: number) {
  emit('mark', events)
  emit('go', tick)
}
const list = (tones: { degree: string }[]) => tones.map((t) => t.degree).join(' ') || 'none'
</script>

<template>
  <div class="verdict">
    <section aria-label="What could be better">
      <p v-if="looked" class="looked" role="status">
        <span>
          {{ signs(looked.says) }}: <b>{{ looked.before }} → {{ looked.after.issues.length }}</b> issues,
          heard alone <b>{{ view.figures.heard }} → {{ looked.after.figures.heard }}</b> of
          {{ view.figures.chords }}
        </span>
        <button type="button" class="primary small" @click="emit('repair', looked.edit)">Apply</button>
        <button type="button" class="chip" @click="looked = undefined">Cancel</button>
      </p>
      <ol class="first">
        <li v-for="f in view.first" :key="f.name">
          <button type="button" class="finding" @click="point(f.events, tickOf(f.events))">
            {{ signs(f.text) }}
          </button>
        </li>
        <li v-if="!view.first.length">
          Nothing that a listener would mind: it lands, it tells the chords, and it breathes.
        </li>
      </ol>
      <details v-if="view.issues.length" :open="opened">
        <summary @click.prevent="opened = !opened">
          {{ view.issues.length === 1 ? 'one place' : `all ${view.issues.length} places` }} that could be
          better
        </summary>
        <ul>
          <li v-for="(c, n) in view.issues" :key="n">
            <button type="button" class="finding" @click="point(c.events, c.tick)">
              {{ signs(c.text) }}
            </button>
            <button
              v-for="r in c.repairs"
              :key="r.text"
              type="button"
              class="chip"
              :aria-label="`Repair: ${signs(r.text)}`"
              @click="look(r.text, r.edit)"
            >
              {{ signs(r.text) }}
            </button>
          </li>
        </ul>
      </details>
    </section>
    <section aria-label="What each chord gets">
      <ul>
        <li v-for="(d, n) in view.impliedHarmony" :key="`d${n}`" class="row">
          <button type="button" class="finding" @click="point(d.events, d.tick)">
            <span class="sign" :class="d.recognition.replace(' ', '-')">{{
              d.recognition === 'heard' ? '●' : '○'
            }}</span>
            {{ signs(d.text) }}
          </button>
          <span v-if="view.coverage[n]" class="quiet">{{ signs(list(view.coverage[n].got)) }}</span>
        </li>
      </ul>
    </section>
    <section aria-label="Style">
      <ul>
        <li v-for="f in view.style" :key="f.name" class="row">
          <button type="button" class="finding" @click="emit('mark', f.events)">
            <span class="sign">{{ f.good ? '●' : '○' }}</span> {{ signs(f.text) }}
          </button>
        </li>
        <li class="row quiet">bars by their rhythm: {{ view.figures.shape.rhythm }}</li>
        <li class="row quiet">
          ends: {{ view.figures.shape.ends }} · shifts of the hand: {{ view.figures.shape.shifts }}
        </li>
        <li v-if="view.written" class="row">
          over what the band plays: strong beats {{ view.written.strong.good }} of
          {{ view.written.strong.of }} home, {{ view.written.heard }} of {{ view.written.chords }} chords
          heard
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.verdict {
  display: grid;
  grid-template-columns: minmax(0, 13fr) minmax(0, 9fr) minmax(0, 10fr);
  gap: 1.2rem;
  height: var(--panel, 19.33rem);
  font-size: 0.92rem;
}
section {
  overflow-y: auto;
}
li {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 0.6rem;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
.finding {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
}
.finding:hover {
  text-decoration: underline;
}
.chip {
  flex: none;
  max-width: 55%;
  padding: 0.08rem 0.6rem;
  font-size: 0.86rem;
  white-space: normal;
}
.looked {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  padding: 0.4rem 0.6rem;
  margin-bottom: 4px;
  border-radius: 8px;
  background: var(--now-tint);
}
.looked .chip {
  white-space: nowrap;
}
.small {
  padding: 0.2rem 0.9rem;
}
.first {
  list-style: none;
  padding: 0;
  margin: 0 0 0.4rem;
  font-weight: 600;
}
summary {
  cursor: pointer;
  color: var(--stone);
  padding: 3px 0;
}
.sign {
  color: var(--now);
}
.sign.unclear,
.sign.another-chord,
.sign.nothing {
  color: var(--next);
}
@container main (max-width: 52rem) {
  .verdict {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
