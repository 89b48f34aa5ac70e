<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { exerciseQuery } from '../../address/exercise'
import type { ChordView, NeckMap, PlacedTone } from '../../api/client'
import BenchTabs from '../../controls/BenchTabs.vue'
import MiniNeck from '../../neck/MiniNeck.vue'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { useMapQuery } from './address'
import PaperPanel from './PaperPanel.vue'
import ScalesPanel from './ScalesPanel.vue'
import { shapeOf, type MapPosition } from './shapes'

/** Below the neck: the positions, and what is looked at of the chord beside its shape. */
const props = defineProps<{ viewOfChord: ChordView; chord: NeckMap['chords'][number] }>()
const emit = defineEmits<{ hear: [notes: PlacedTone[], strummed: boolean] }>()
const route = useRoute()
const tune = useTune()
const view = useView()

const here = computed(() => view.position.value?.id)
const query = useMapQuery()
const { over, bench } = query
const small = computed(() =>
  props.viewOfChord.smaller.find((s) => `${s.name}, ${s.strings}` === query.small.value),
)
const again = computed(() =>
  props.viewOfChord.recurrences.map((a) => `${signs(a.chord)} ${a.low}–${a.high}`).join(', '),
)

const benches = computed(() => [
  { name: 'box' as const, title: `Your box, ${signs(tune.map?.boxName ?? '')}` },
  { name: 'chords' as const, title: 'All chords' },
  { name: 'arpeggios' as const, title: 'Arpeggios over it' },
  { name: 'scales' as const, title: 'Scales' },
  { name: 'smaller' as const, title: 'Smaller' },
  { name: 'paper' as const, title: 'On paper' },
])

function chooseSmaller(name: string, notes: PlacedTone[]) {
  const chosen = query.small.value === name
  void query.set({ small: chosen ? undefined : name })
  if (!chosen) emit('hear', notes, true)
}

/** Lays an arpeggio over the chord, and plays it note by note. */
function chooseArpeggio(one: ChordView['superimposed'][number]) {
  const chosen = over.value === one.chord
  void query.set({ over: chosen ? 'box' : one.chord })
  if (!chosen) emit('hear', one.notes, false)
}

/** Small structures led through the whole tune, as exercises. */
const through = [
  { title: 'shells', of: { tones: 'shells' } },
  { title: 'guide tones', of: { tones: 'guide tones' } },
  { title: 'roots and thirds', of: { tones: 'root and third' } },
  { title: 'spread triads', of: { tones: 'spread triads' } },
].map(({ title, of }) => ({
  title,
  query: exerciseQuery({
    ...of,
    where: { kind: 'along the strings' },
    time: { subdivision: 'once a chord' },
  }),
}))

/** A position as it is said in full. */
const placeName = (p: MapPosition) => `${p.form ? `${p.label}, ` : ''}frets ${p.core} to ${p.coreEnd}`

function open(position: MapPosition) {
  void view.set({ pos: position.id })
}
/** Opens a chord in a position: at the first moment of the tune that has it. */
function openChord(symbol: string, position: MapPosition) {
  const moment = view.moments.value.find((m) => m.chord === symbol)
  void view.set({ pos: position.id, at: moment?.tick ?? 0 })
}
</script>

<template>
  <div v-if="tune.map && here" class="bench">
    <BenchTabs :tabs="benches" :chosen="bench" @choose="(name) => query.set({ bench: name })">
      <span v-if="again" class="quiet again cut" :title="`This shape is also ${again}.`"
        >This shape is also {{ again }}.</span
      >
    </BenchTabs>
    <div role="tabpanel" :aria-label="benches.find((one) => one.name === bench)?.title">
      <div v-if="bench === 'chords'" class="matrix">
        <template v-for="one in tune.map.chords" :key="one.chord">
          <strong class="symbol">{{ signs(one.chord) }}</strong>
          <ol class="positions small" :aria-label="`${signs(one.chord)} along the neck`">
            <li v-for="p in tune.map.positions" :key="p.id">
              <button
                type="button"
                :aria-current="p.id === here && one.chord === chord.chord ? 'true' : undefined"
                :aria-label="`${signs(one.chord)}, ${placeName(p)}`"
                @click="openChord(one.chord, p)"
              >
                <MiniNeck
                  :position="p"
                  :shape="shapeOf(p, one.chord)!"
                  :strings="tune.map.instrument.strings.length"
                />
                <span class="place"
                  >{{ shapeOf(p, one.chord)!.form }} <b>{{ p.core }}–{{ p.coreEnd }}</b></span
                >
              </button>
            </li>
          </ol>
        </template>
      </div>
      <template v-else>
        <ol class="positions" aria-label="Positions">
          <li v-for="p in tune.map.positions" :key="p.id">
            <button
              type="button"
              :aria-current="p.id === here ? 'true' : undefined"
              :aria-label="placeName(p)"
              @click="open(p)"
            >
              <span class="place"
                >{{ p.label }} <b>{{ p.core }}–{{ p.coreEnd }}</b></span
              >
              <MiniNeck
                :position="p"
                :shape="shapeOf(p, chord.chord)!"
                :strings="tune.map.instrument.strings.length"
              />
            </button>
          </li>
        </ol>
        <ul v-if="bench === 'arpeggios'" class="arpeggios">
          <li v-for="s in props.viewOfChord.superimposed" :key="s.chord">
            <button type="button" class="chip" :aria-pressed="over === s.chord" @click="chooseArpeggio(s)">
              <b>{{ signs(s.chord) }}</b> {{ s.degrees.map(signs).join(' ')
              }}<i v-if="s.leans"> leans on {{ signs(s.leans) }}</i>
            </button>
          </li>
        </ul>
        <ul v-else-if="bench === 'smaller'" class="arpeggios">
          <li v-for="s in props.viewOfChord.smaller" :key="`${s.name}, ${s.strings}, ${s.notes[0]?.fret}`">
            <button
              type="button"
              class="chip"
              :aria-pressed="small === s"
              @click="chooseSmaller(`${s.name}, ${s.strings}`, s.notes)"
            >
              {{ s.name }} <span class="strings">{{ s.strings }}</span>
            </button>
          </li>
          <li v-if="!props.viewOfChord.smaller.length" class="quiet">None of them lies in this position.</li>
          <li class="through">
            <span class="quiet">through the whole tune, each voice moving little:</span>
            <RouterLink
              v-for="one in through"
              :key="one.title"
              class="chip"
              :to="{ name: 'exercise', params: route.params, query: { ...route.query, ...one.query } }"
            >
              {{ one.title }}
            </RouterLink>
          </li>
        </ul>
        <ScalesPanel v-else-if="bench === 'scales'" :view-of-chord="viewOfChord" :chord="chord.chord" />
        <PaperPanel v-else-if="bench === 'paper'" :chord="chord.chord" :position="here" />
        <ul v-else class="chords">
          <li v-for="one in tune.map.chords" :key="one.chord" :class="{ here: one.chord === chord.chord }">
            <strong class="symbol">{{ signs(one.chord) }}</strong>
            <span class="quiet">{{ signs(one.roman) }}</span>
            <p>
              holds
              <template v-for="tone in one.box.has" :key="tone.degree">
                <b>{{ signs(tone.note) }}</b> <span class="quiet">{{ signs(tone.degree) }}</span>&ensp;
              </template>
            </p>
            <p v-for="lack in one.box.missing.filter((l) => l.needed)" :key="lack.degree" class="add">
              add {{ signs(lack.text) }}
            </p>
            <p v-if="!one.box.missing.some((l) => l.needed)">nothing to add</p>
          </li>
        </ul>
      </template>
    </div>
  </div>
</template>

<style scoped>
.again {
  margin-left: auto;
  max-width: 60%;
}
.matrix {
  display: grid;
  grid-template-columns: 4.6rem minmax(0, 1fr);
  align-items: center;
  gap: 4px;
  max-height: var(--panel-most, calc(100vh - 39.07rem));
  min-height: var(--panel-least, 12rem);
  overflow-y: auto;
}
.positions.small {
  margin-bottom: 0;
}
.small .place {
  font-size: 0.8rem;
}
.arpeggios {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  max-height: var(--panel-most, 7.07rem);
  overflow-y: auto;
}
.through {
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px;
}
.through .chip {
  color: inherit;
  text-decoration: none;
}
.arpeggios .strings {
  opacity: 0.85;
  font-size: 0.86rem;
}
.positions {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(4.9rem, 1fr));
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
  grid-template-columns: repeat(auto-fit, minmax(min(11rem, 100%), 1fr));
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
