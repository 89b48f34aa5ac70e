<script setup lang="ts">
import { computed, ref } from 'vue'
import { shapeOf } from './shapes'
import { placeKey } from '../../neck/marks'
import NeckView from '../../neck/NeckView.vue'
import { samePlace } from '../../neck/geometry'
import { usePlayer, useSource } from '../../sound/player'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { useHands } from '../../document/hands'
import type { Place, PlacedTone } from '../../api/client'
import { overlays } from './address'
import { useChord } from './chord'
import { shapePerformance } from './hearing'
import { arpeggioOf, chordMarks, legendOf, overlayOf, type Looks } from './looks'
import MapBench from './MapBench.vue'
import MapTools from './MapTools.vue'

const tune = useTune()
const view = useView()
const player = usePlayer()
const hands = useHands()
const { query, shown, refusal, full, over, label, hidden, hide } = useChord()
const rootsOnly = ref(false)
const lost = ref(false)
const picked = ref<Place>()

const chord = computed(() => tune.map?.chords.find((c) => c.chord === view.moment.value?.chord))
const shape = computed(() => shown.value?.shape)
const position = computed(() => shown.value?.position)
/** The smaller structure that is chosen, by its name and strings. */
const small = computed(() =>
  shown.value?.smaller.find((s) => `${s.name}, ${s.strings}` === query.small.value),
)
/** How far the hand reaches for what is shown: the shape, or the easier placing of it. */
const stretch = computed(
  () => (query.easier.value && shown.value?.easier?.stretchMm) || (shape.value?.stretchMm ?? 0),
)
const overlay = computed(() => overlayOf(shown.value, over.value))

/** The tones of the shape, or on the whole neck those of every position. */
const tones = computed<PlacedTone[]>(() => {
  if (!full.value) return shape.value?.tones ?? []
  const all = new Map<string, PlacedTone>()
  for (const p of tune.map?.positions ?? [])
    for (const tone of shapeOf(p, chord.value?.chord)?.tones ?? []) all.set(placeKey(tone), tone)
  return [...all.values()]
})
/** The degrees that can be hidden: those of the shape, and each extension. */
const degrees = computed(() => {
  const extensions = over.value === 'extensions' ? (shown.value?.extensions.notes ?? []) : []
  return [...new Set([...(shape.value?.tones ?? []), ...extensions].map((tone) => tone.degree))]
})
const arpeggio = computed(() => arpeggioOf(shown.value, over.value))
/** What is heard of the chord: the structure or arpeggio that is chosen, or its shape. */
const heardNotes = computed(() => small.value?.notes ?? arpeggio.value?.notes ?? shape.value?.tones ?? [])

const looks = computed<Looks>(() => ({
  ...{ label: label.value, full: full.value, over: over.value, hidden: hidden.value },
  ...{ rootsOnly: rootsOnly.value, lost: lost.value, picked: picked.value, small: small.value },
  // The placing within the player's span, where it is asked for and needed.
  easier: query.easier.value && Boolean(shown.value?.easier),
}))
const marks = computed(() =>
  shown.value && shape.value ? chordMarks(shown.value, tones.value, chord.value, looks.value) : [],
)
const legend = computed(() => legendOf(shown.value, chord.value?.chord ?? '', looks.value))

const span = computed(() => {
  const here = position.value
  if (!here || !full.value || !tune.map) return here
  return { ...here, low: 0, high: tune.map.instrument.frets }
})
const fromTheBottom = computed(() => shape.value?.tones.map((tone) => signs(tone.degree)).join(' ') ?? '')
const pickedNote = computed(() => {
  const at = [
    ...(shape.value?.tones ?? []),
    ...(shape.value?.beyond ?? []),
    ...(shape.value?.box ?? []),
    ...(overlay.value?.notes ?? []),
  ].find((tone) => picked.value && samePlace(tone, picked.value))
  return at && chord.value?.judgements.find((j) => j.note === at.note)
})
/** Plays notes from the lowest up, one after the other or strummed, without the band. */
function hear(notes: PlacedTone[], strummed = false) {
  const moment = view.moment.value
  if (!tune.chart || !tune.read || !moment || !notes.length) return
  const on = { chart: tune.chart, bar: moment.bar }
  // One tone is only shown; a shape is played, and can be stopped.
  const sound = notes.length === 1 ? player.show : player.play
  void sound(shapePerformance(notes, strummed, on))
}

/** Whether any tone of the shape lies where the player moved it. */
const moved = computed(() =>
  (hands.player.swaps ?? []).some(
    (s) =>
      s.sign === shape.value?.sign &&
      s.form === shape.value.form &&
      shape.value.tones.some((tone) => tone.degree === s.degree && tone.string === s.to),
  ),
)

/** Moves the picked tone to another of its places, wherever the shape comes back. */
function move(place: Place) {
  const from = shape.value?.tones.find((tone) => picked.value && samePlace(tone, picked.value))
  if (!from || !shape.value || !from.alternatives.some((other) => samePlace(other, place))) return false
  const { sign, form } = shape.value
  void hands.swap({ sign, form, degree: from.degree, from: from.string, to: place.string })
  picked.value = place
  return true
}

function pick(place: Place) {
  if (move(place)) return
  picked.value = place
  const tone = [...tones.value, ...(shape.value?.box ?? []), ...(overlay.value?.notes ?? [])].find((t) =>
    samePlace(t, place),
  )
  if (tone) hear([tone])
}

useSource('map', () => {
  const bar = view.moment.value?.bar
  return bar ? { tuneFrom: bar } : undefined
})

function walkOverlays() {
  const at = overlays.findIndex((o) => o.name === over.value)
  void query.set({ over: overlays[(at + 1) % overlays.length]?.name })
}

useKeys([
  {
    key: 'b',
    says: 'the box on and off',
    run: () => void query.set({ over: over.value === 'box' ? 'none' : 'box' }),
  },
  { key: 'o', says: 'lay the next thing over', run: walkOverlays },
  { key: 'h', says: 'hide all but the roots', run: () => (rootsOnly.value = !rootsOnly.value) },
  { key: 'l', says: 'lost? play the box', run: () => (lost.value = !lost.value) },
  { key: 'f', says: 'the full neck', run: () => void query.set({ full: !full.value }) },
  { key: 'p', says: 'hear the shape', run: () => hear(heardNotes.value) },
])
</script>

<template>
  <section
    v-if="tune.map && position && span && shape && chord && view.moment.value && view.position.value"
    class="map"
  >
    <p class="says">
      <strong class="chord">{{ signs(chord.chord) }}</strong>
      <template v-if="lost">Lost? Play the box: {{ signs(tune.map.boxName) }}.</template>
      <template v-else>
        <template v-if="position.form">
          in the {{ position.form }}-form position makes the {{ shape.form }} form. From the bottom:
        </template>
        <template v-else>on frets {{ position.core }} to {{ position.coreEnd }}. From the bottom:</template>
        <strong>{{ fromTheBottom }}</strong>
      </template>
      <span class="toggles">
        <button type="button" class="chip" :aria-pressed="rootsOnly" @click="rootsOnly = !rootsOnly">
          roots only
        </button>
        <button type="button" class="chip" :aria-pressed="lost" @click="lost = !lost">lost?</button>
      </span>
    </p>
    <MapTools
      class="choosing"
      :degrees="degrees"
      :hidden="hidden"
      :layouts="shown?.layouts ?? []"
      :slides="tune.map.instrument.hasNamedForms"
      :stands-on="arpeggio?.degrees[0]"
      @hide="hide"
      @hear="hear(heardNotes)"
    />
    <NeckView
      :instrument="tune.map.instrument"
      :span="span"
      :marks="marks"
      :label="`${signs(chord.chord)} on the neck, frets ${position.low} to ${position.high}`"
      :spacing="40"
      @pick="pick"
    />
    <p v-if="refusal" class="under" role="alert">
      {{ signs(refusal.message) }}
      <button type="button" class="chip" @click="query.set({ layout: undefined })">All tones</button>
    </p>
    <p v-else class="under">
      <span v-if="pickedNote">{{ signs(pickedNote.reason) }}</span>
      <span v-else class="quiet">{{ signs(legend) }}</span>
      <span class="quiet right">
        <template v-if="moved">
          Moved for every {{ shape.form ? `${shape.form} form` : 'shape' }} of its kind.
          <button type="button" class="chip" @click="hands.putBack(shape.sign, shape.form)">Put back</button>
        </template>
        <button
          v-if="shown?.easier"
          type="button"
          class="chip"
          :aria-pressed="looks.easier"
          @click="query.set({ easier: !looks.easier })"
        >
          easier
        </button>
        <template v-if="shape.caution && !looks.easier">{{ shape.caution }}</template>
        <template v-else>{{ Math.round(stretch) }} mm from end to end</template>
      </span>
    </p>

    <MapBench class="below" :view-of-chord="shown!" :chord="chord" @hear="hear" />
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
  align-items: baseline;
  gap: 1rem;
  min-height: 1.5rem;
  margin: 2px 0 6px;
}
.right {
  margin-left: auto;
}
/* On a phone the neck comes before what is chosen about it. */
@container main (max-width: 52rem) {
  .map {
    display: flex;
    flex-direction: column;
  }
  .under {
    order: 1;
    flex-wrap: wrap;
  }
  .choosing {
    order: 2;
    margin: 6px 0;
  }
  .below {
    order: 3;
  }
}
</style>
