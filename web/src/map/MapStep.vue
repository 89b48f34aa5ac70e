<script setup lang="ts">
import { computed, ref } from 'vue'
import type { MapPosition } from './shapes'
import { shapeOf } from './shapes'
import { boxMarks, toneMark, type Mark } from '../neck/marks'
import MiniNeck from '../neck/MiniNeck.vue'
import NeckView from '../neck/NeckView.vue'
import { samePlace } from '../neck/geometry'
import { useSource } from '../sound/player'
import { useKeys } from '../tune/keys'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'
import type { Place } from '../api/client'

const tune = useTune()
const view = useView()
const showBox = ref(true)
const rootsOnly = ref(false)
const lost = ref(false)
const picked = ref<Place>()

const shape = computed(() => shapeOf(view.position.value, view.moment.value?.chord))
const chord = computed(() => tune.map?.chords.find((c) => c.chord === view.moment.value?.chord))
const toAdd = computed(() => new Set(chord.value?.box.lacks.filter((l) => l.add).map((l) => l.degree)))

const marks = computed<Mark[]>(() => {
  if (!shape.value) return []
  if (lost.value) {
    const homes = shape.value.box
      .filter((note) => note.class === 'home')
      .map((note) => toneMark(note, 'tone'))
    return [...homes, ...boxMarks(shape.value.box, homes)]
  }
  const tones = shape.value.tones
    .filter((tone) => !rootsOnly.value || tone.degree === 'R')
    .map((tone) => ({
      ...toneMark(tone, 'tone'),
      chosen: picked.value && samePlace(tone, picked.value),
      caption: showBox.value && toAdd.value.has(tone.degree) ? 'not in box' : undefined,
    }))
  const chosen = shape.value.tones.find((tone) => picked.value && samePlace(tone, picked.value))
  // What only a reach below the core would give is there, but not in the shape.
  const beyond = shape.value.beyond
    .filter(() => !rootsOnly.value)
    .map((tone) => ({
      ...toneMark(tone, 'ghost'),
      root: false,
      small: undefined,
      spoken: `reach back: ${tone.spoken}`,
    }))
  const alternatives = (chosen?.alternatives ?? []).map((place) => ({
    ...toneMark(chosen!, 'ghost'),
    ...place,
    root: false,
    small: undefined,
    spoken: `the same ${chosen!.note} on string ${place.string}, fret ${place.fret}`,
  }))
  const pebbles = [...tones, ...beyond, ...alternatives]
  return [...pebbles, ...(showBox.value ? boxMarks(shape.value.box, pebbles) : [])]
})

const fromTheBottom = computed(() => shape.value?.tones.map((tone) => signs(tone.degree)).join(' ') ?? '')
const pickedNote = computed(() => {
  const at = [
    ...(shape.value?.tones ?? []),
    ...(shape.value?.beyond ?? []),
    ...(shape.value?.box ?? []),
  ].find((tone) => picked.value && samePlace(tone, picked.value))
  return at && chord.value?.judgements.find((j) => j.note === at.note)
})

function open(position: MapPosition) {
  void view.set({ pos: position.id })
}

useSource(() => {
  if (!tune.chart || !view.moment.value) return undefined
  return { chart: tune.chart, from: view.moment.value.bar, bars: tune.chart.bars.length, countIn: 1 }
})

useKeys([
  { key: 'b', says: 'the box on and off', run: () => (showBox.value = !showBox.value) },
  { key: 'h', says: 'hide all but the roots', run: () => (rootsOnly.value = !rootsOnly.value) },
  { key: 'l', says: 'lost? play the box', run: () => (lost.value = !lost.value) },
])
</script>

<template>
  <section v-if="tune.map && view.position.value && shape && chord && view.moment.value">
    <p class="says">
      <strong class="chord">{{ signs(chord.chord) }}</strong>
      <template v-if="lost">Lost? Play the box: {{ signs(tune.map.boxName) }}.</template>
      <template v-else>
        in the {{ view.position.value.form }}-form position makes the {{ shape.form }} form. From the bottom:
        <strong>{{ fromTheBottom }}</strong>
      </template>
      <span class="toggles">
        <button type="button" class="chip" :aria-pressed="showBox" @click="showBox = !showBox">box</button>
        <button type="button" class="chip" :aria-pressed="rootsOnly" @click="rootsOnly = !rootsOnly">
          roots only
        </button>
        <button type="button" class="chip" :aria-pressed="lost" @click="lost = !lost">lost?</button>
      </span>
    </p>
    <NeckView
      :instrument="tune.map.instrument"
      :span="view.position.value"
      :marks="marks"
      :label="`${signs(chord.chord)} on the neck, frets ${view.position.value.low} to ${view.position.value.high}`"
      :spacing="43"
      @pick="(place) => (picked = place)"
    />
    <p class="under">
      <span v-if="pickedNote">{{ signs(pickedNote.reason) }}</span>
      <span v-else class="quiet"
        >Dots are your box: ◐ blue · ● lean · dashed colour. Pick a note to read why.</span
      >
      <span class="quiet right">
        <template v-if="shape.caution">{{ shape.caution }}</template>
        <template v-else>{{ Math.round(shape.stretchMm) }} mm from end to end</template>
      </span>
    </p>

    <div class="bench">
      <div class="head">
        <h2>{{ signs(chord.chord) }} along the neck</h2>
        <span class="quiet">[ and ] walk, click to go there</span>
      </div>
      <ol class="positions" aria-label="Positions">
        <li v-for="position in tune.map.positions" :key="position.id">
          <button
            type="button"
            :aria-current="position.id === view.position.value.id ? 'true' : undefined"
            :aria-label="`${position.form} form, frets ${position.core} to ${position.coreEnd}`"
            @click="open(position)"
          >
            <span class="place"
              >{{ position.form }} form <b>{{ position.core }}–{{ position.coreEnd }}</b></span
            >
            <MiniNeck
              :position="position"
              :shape="shapeOf(position, chord.chord)!"
              :strings="tune.map.instrument.strings.length"
            />
          </button>
        </li>
      </ol>
      <div class="head">
        <h2>Your box, {{ signs(tune.map.boxName) }}</h2>
        <span class="quiet">one note a chord is enough to say it</span>
      </div>
      <ul class="chords">
        <li v-for="one in tune.map.chords" :key="one.chord" :class="{ here: one.chord === chord.chord }">
          <strong class="symbol">{{ signs(one.chord) }}</strong>
          <span class="quiet">{{ signs(one.roman) }}</span>
          <p>
            holds
            <template v-for="tone in one.box.holds" :key="tone.degree">
              <b>{{ signs(tone.note) }}</b> <span class="quiet">{{ signs(tone.degree) }}</span>&ensp;
            </template>
          </p>
          <p v-for="lack in one.box.lacks.filter((l) => l.add)" :key="lack.degree" class="add">
            add {{ signs(lack.sentence) }}
          </p>
          <p v-if="!one.box.lacks.some((l) => l.add)">nothing to add</p>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.chord {
  font-size: 1.25rem;
  color: var(--now);
}
.toggles {
  margin-left: auto;
  display: flex;
  gap: 6px;
  font-size: 0.9rem;
}
.under {
  display: flex;
  gap: 2rem;
  min-height: 1.5rem;
  margin: 2px 0 8px;
}
.right {
  margin-left: auto;
}
.positions {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 6px;
  margin-bottom: 0.9rem;
}
.positions button {
  width: 100%;
  border: 2px solid transparent;
  border-radius: 9px;
  background: var(--paper);
  padding: 4px 3px;
  cursor: pointer;
}
.positions button:hover {
  border-color: var(--line);
}
.positions button[aria-current] {
  border-color: var(--now);
  background: var(--now-tint);
}
.place {
  font-size: 0.85rem;
  white-space: nowrap;
}
.chords {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 10px;
}
.chords li {
  border-left: 4px solid var(--line);
  padding-left: 0.8rem;
}
.chords .here {
  border-color: var(--now);
}
.symbol {
  font-size: 1.15rem;
  margin-right: 0.4rem;
}
.add {
  font-weight: 650;
  color: var(--next);
}
</style>
