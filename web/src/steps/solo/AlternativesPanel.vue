<script setup lang="ts">
import { computed } from 'vue'
import type { ChorusView } from '../../api/client'
import { signs } from '../../controls/spelling'
import SmallTab from './SmallTab.vue'

/** Choruses side by side with what is said of each: of one seed, or of one solo. */
const props = defineProps<{
  all: { name: string; view: ChorusView; now: boolean }[]
  strings: string[]
  bar: number
  act: string
}>()
defineEmits<{ take: [index: number]; hear: [index: number] }>()
const percent = (share: number) => `${Math.round(share * 100)} %`
const of = (v: ChorusView) => [
  { name: 'landings', value: `${v.figures.landings} of ${v.figures.changes}` },
  {
    name: 'strong beats',
    value: percent(v.figures.strong.of ? v.figures.strong.good / v.figures.strong.of : 0),
  },
  { name: 'heard alone', value: `${v.figures.heard} of ${v.figures.chords}` },
  { name: 'space', value: percent(v.figures.space) },
  { name: 'notes', value: `${v.tab.events.length}, ${v.figures.shape.perSecond.toFixed(1)} a second` },
  { name: 'reach', value: `${Math.round(v.figures.shape.widestMm)} mm` },
]
const columns = computed(() => props.all.map((one) => ({ ...one, figures: of(one.view) })))
/** A chorus in one sentence: the first thing to mend, or what is good in it. */
const sentence = (v: ChorusView) => v.issues[0]?.text ?? v.style.find((f) => f.name === 'motif')?.text ?? ''
</script>

<template>
  <div class="columns" :style="{ '--columns': Math.max(columns.length, 1) }">
    <article v-for="(one, n) in columns" :key="n" :class="{ now: one.now }" :aria-label="one.name">
      <header>
        <strong class="cut" :title="one.name">{{ one.name }}</strong>
        <span v-if="one.now" class="quiet">on the desk</span>
        <button
          v-else
          type="button"
          class="chip"
          :aria-label="`${act} ${one.name}`"
          @click="$emit('take', n)"
        >
          {{ act }}
        </button>
        <button type="button" class="chip" :aria-label="`Hear ${one.name}`" @click="$emit('hear', n)">
          Hear
        </button>
      </header>
      <SmallTab :view="one.view" :strings="strings" :bar="bar" />
      <dl>
        <template v-for="f in one.figures" :key="f.name">
          <dt>{{ f.name }}</dt>
          <dd>{{ f.value }}</dd>
        </template>
      </dl>
      <p class="quiet" :title="signs(sentence(one.view))">{{ signs(sentence(one.view)) }}</p>
    </article>
    <p v-if="!columns.length" class="quiet">
      Plan again, and the three best choruses of the seed stand here side by side.
    </p>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(var(--columns), minmax(0, 1fr));
  gap: 1rem;
  height: var(--panel, 19.33rem);
}
article {
  border: 1px solid var(--line);
  border-radius: 10px;
  padding: 0.5rem 0.8rem;
  overflow: hidden auto;
}
.now {
  border-color: var(--now);
}
header {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}
header strong {
  margin-right: auto;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr auto 1fr;
  gap: 2px 0.7rem;
  margin: 4px 0;
  font-size: 0.88rem;
}
dt {
  color: var(--stone);
}
dd {
  margin: 0;
  font-weight: 650;
}
p {
  font-size: 0.88rem;
  max-height: var(--panel-most, 2.7em);
  overflow: hidden;
}
.chip {
  padding: 0.1rem 0.7rem;
}
@container main (max-width: 52rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  header {
    flex-wrap: wrap;
  }
  dl {
    grid-template-columns: 1fr auto;
  }
}
</style>
