<script setup lang="ts">
import { className } from '../../controls/classes'
import { computed, ref, watch } from 'vue'
import type { NearbyTarget, Move, Place, Target } from '../../api/client'
import { samePlace } from '../../neck/geometry'
import { useGrowing } from '../../controls/growing'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import type { ChangeWork } from './change'

/** The ways across, best first; or from where the player is, the nearest landings. */
const props = defineProps<{ work: ChangeWork; chosen: number }>()
const emit = defineEmits<{ choose: [index: number] }>()
const tune = useTune()
const view = useView()
const { shown, here, near, nowhere, target } = props.work

function where(move: Move) {
  const strings =
    move.from.string === move.to.string
      ? `string ${move.from.string}`
      : `strings ${move.from.string}→${move.to.string}`
  return samePlace(move.from, move.to)
    ? `string ${move.from.string} · fret ${move.from.fret}`
    : `${strings} · ${move.from.fret}→${move.to.fret}`
}
const at = (place: Place) => `${place.string}:${place.fret}`
const over = (tone: Target) =>
  tone.written ? `over ${tone.written.chord}: ${tone.written.degree}, ${className(tone.written.class)}` : ''
function far(l: NearbyTarget) {
  const steps = l.semitones === 0 ? '=' : `${l.semitones > 0 ? '↑' : '↓'}${Math.abs(l.semitones)}`
  const strings = l.strings === 0 ? 'same string' : `${Math.abs(l.strings)} over`
  return `${steps} · ${strings}`
}
const groups = computed(() => {
  const found = near.value
  if (!found) return []
  const place = here.value ? at(here.value) : ''
  const lands = { title: 'Nearest landings', all: found.to, aim: true, key: `to ${place}` }
  const from = { title: 'Where you can come from', all: found.from, aim: false, key: `from ${place}` }
  return found.from.length ? [from, lands] : [lands]
})
const standing = computed(() => {
  const found = near.value
  if (!found || !here.value) return ''
  const { leaving, arriving } = found
  return `${leaving.note}: the ${leaving.degree} over ${shown.value?.leaving.chord}, the ${arriving.degree} over ${shown.value?.arriving.chord} (${className(found.class)})`
})

/** Those in sight come first. */
const moves = useGrowing(() => shown.value?.moves ?? [], 8)
const list = ref<HTMLElement>()
watch(
  () => props.chosen,
  (index) => list.value?.children[index]?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)
</script>

<template>
  <div v-if="shown" class="moves">
    <div class="head">
      <template v-if="here">
        <h2>I am here</h2>
        <span class="quiet cut" :title="signs(standing)">{{ at(here) }} · {{ signs(standing) }}</span>
        <button type="button" class="chip back" @click="work.query.set({ here: undefined })">all ways</button>
      </template>
      <template v-else>
        <h2>Best first</h2>
        <span class="quiet">{{ shown.moves.length }} ways; press the neck: “I am here”</span>
        <PillSelect
          class="back"
          label="What to aim at"
          :chosen="props.work.strategy.value"
          :options="named(tune.choices?.strategies)"
          @choose="(aim) => view.set({ strategy: aim, target: undefined })"
        />
      </template>
    </div>
    <p v-if="nowhere" role="alert">{{ signs(nowhere) }}.</p>
    <div v-else-if="here" class="moves">
      <template v-for="group in groups" :key="group.key">
        <h3>{{ group.title }}</h3>
        <ol :aria-label="group.title">
          <li v-for="l in group.all" :key="at(l)">
            <button
              type="button"
              :class="{ chosen: group.aim && target && samePlace(l, target) }"
              :aria-pressed="group.aim ? Boolean(target && samePlace(l, target)) : undefined"
              @click="group.aim ? props.work.aim(l) : props.work.setHere(l)"
            >
              <b class="pair">{{ signs(l.degree) }} {{ signs(l.note) }}</b>
              <span class="sentence"
                >{{ signs(l.text) }} <i v-if="over(l)" class="quiet">{{ signs(over(l)) }}</i></span
              >
              <span class="where quiet tabular">{{ at(l) }} · {{ far(l) }}</span>
            </button>
          </li>
        </ol>
      </template>
    </div>
    <ol v-else ref="list" class="moves" aria-label="Moves, best first">
      <li v-for="(move, index) in moves" :key="index">
        <button
          type="button"
          :class="{ chosen: index === chosen }"
          :aria-pressed="index === chosen"
          @click="emit('choose', index)"
        >
          <span class="rank quiet tabular">{{ index + 1 }}</span>
          <span class="sentence"
            >{{ signs(move.text) }} <i v-if="over(move.to)" class="quiet">{{ signs(over(move.to)) }}</i></span
          >
          <span class="where quiet tabular">{{ where(move) }}</span>
        </button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.moves {
  min-width: 0;
}
.back {
  margin-left: auto;
}
.head h2 {
  white-space: nowrap;
}
.head .quiet {
  font-size: 0.88rem;
}
h3 {
  margin: 4px 0 0;
  font-size: 0.85rem;
  font-weight: 600;
  color: var(--stone);
}
.moves {
  height: var(--panel, 18.13rem);
  max-height: 22rem;
  overflow-y: auto;
  scrollbar-gutter: stable;
}
.moves button {
  display: flex;
  align-items: baseline;
  gap: 0.6rem;
  width: 100%;
  text-align: left;
  padding: 0.32rem 0.5rem;
  border: 0;
  border-radius: 8px;
  background: none;
  cursor: pointer;
  line-height: 1.25;
}
.moves button:hover {
  background: var(--shade);
}
.moves button.chosen {
  background: var(--now-tint);
}
.rank {
  min-width: 1.2rem;
}
.pair {
  min-width: 3.4rem;
}
.sentence {
  flex: 1;
}
.where {
  font-size: 0.8rem;
  white-space: nowrap;
}
</style>
