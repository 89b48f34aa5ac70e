<script setup lang="ts">
import { computed, ref } from 'vue'
import { shapeOf } from './shapes'
import { boxMarks, changeMarks, placeKey, toneMark, type Mark } from '../../neck/marks'
import NeckView from '../../neck/NeckView.vue'
import { samePlace } from '../../neck/geometry'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { usePlayer, useSource } from '../../sound/player'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { useHands } from '../../document/hands'
import type { Place, PlacedTone } from '../../api/client'
import { labels, overlays } from './address'
import { useChord } from './chord'
import MapBench from './MapBench.vue'

const tune = useTune()
const view = useView()
const player = usePlayer()
const hands = useHands()
const { query, shown, refusal, slide, full, over, label, hidden, layoutText, hide } = useChord()
const rootsOnly = ref(false)
const lost = ref(false)
const picked = ref<Place>()

const chord = computed(() => tune.map?.chords.find((c) => c.chord === view.moment.value?.chord))
const shape = computed(() => shown.value?.shape)
const position = computed(() => shown.value?.position)
const toAdd = computed(() => new Set(chord.value?.box.lacks.filter((l) => l.add).map((l) => l.degree)))
const arpeggio = computed(() => shown.value?.superimposed.find((s) => s.chord === over.value))
/** The smaller structure that is chosen, by its name and strings. */
const small = computed(() =>
  shown.value?.smaller.find((s) => `${s.name}, ${s.strings}` === query.small.value),
)
const lain = computed(() => {
  const all = shown.value
  if (!all) return undefined
  return { joining: all.joining, extensions: all.extensions, blend: all.blend, next: all.next }[over.value]
})

/** The tones of the shape, or on the whole neck those of every position. */
const tones = computed<PlacedTone[]>(() => {
  if (!full.value) return shape.value?.tones ?? []
  const all = new Map<string, PlacedTone>()
  for (const p of tune.map?.positions ?? [])
    for (const tone of shapeOf(p, chord.value?.chord)?.tones ?? []) all.set(placeKey(tone), tone)
  return [...all.values()]
})
/** The placing within the player's span, where it is asked for. */
const easier = computed(() => (query.easier.value ? shown.value?.easier : undefined))
const degrees = computed(() => [...new Set(shape.value?.tones.map((tone) => tone.degree))])
const wanted = (tone: PlacedTone) => (rootsOnly.value ? tone.degree === 'R' : !hidden.value.has(tone.degree))

function text(tone: PlacedTone) {
  if (label.value === 'note') return tone.note
  if (label.value === 'degree of the key') return tone.inKey
  if (label.value === 'finger') return tone.finger ? String(tone.finger) : '0'
  return tone.degree
}
/** A tone as the label asks: the finger stands small beside it, but where the hand moves about. */
function marked(tone: PlacedTone, form: Mark['form']): Mark {
  const mark = toneMark(tone, form)
  const small = label.value === 'finger' || full.value ? undefined : mark.small
  return { ...mark, text: text(tone), small }
}

const marks = computed<Mark[]>(() => {
  const all = shown.value
  if (!all || !shape.value) return []
  if (lost.value) {
    const homes = shape.value.box.filter((note) => note.class === 'home').map((note) => marked(note, 'tone'))
    return [...homes, ...boxMarks(shape.value.box, homes)]
  }
  if (easier.value && !full.value) {
    const within = easier.value.tones.filter(wanted).map((tone) => marked(tone, 'tone'))
    const taken = new Set(within.map(placeKey))
    const rest = shape.value.tones.filter((tone) => !taken.has(placeKey(tone)))
    return [...within, ...rest.map((tone) => ghost(tone, `left out: ${tone.spoken}`))]
  }
  if (small.value && !full.value) {
    const chosen = small.value.notes.map((tone) => marked(tone, 'tone'))
    const taken = new Set(chosen.map(placeKey))
    const rest = shape.value.tones.filter((tone) => !taken.has(placeKey(tone)))
    return [...chosen, ...rest.map((tone) => ghost(tone, tone.spoken))]
  }
  if (arpeggio.value && !full.value) return changeMarks(tones.value.filter(wanted), arpeggio.value.notes)
  const pebbles = tones.value.filter(wanted).map((tone) => ({
    ...marked(tone, 'tone'),
    chosen: picked.value && samePlace(tone, picked.value),
    caption: over.value === 'box' && toAdd.value.has(tone.degree) && !full.value ? 'not in box' : undefined,
  }))
  if (full.value) return pebbles
  const chosen = shape.value.tones.find((tone) => picked.value && samePlace(tone, picked.value))
  // What only a reach below the core would give is there, but not in the shape.
  const beyond = shape.value.beyond.filter(wanted).map((tone) => ghost(tone, `reach back: ${tone.spoken}`))
  const alternatives = (chosen?.alternatives ?? []).map((place) => ({
    ...ghost(chosen!, `move the ${chosen!.note} to string ${place.string}, fret ${place.fret}`),
    ...place,
  }))
  const under = [...pebbles, ...beyond, ...alternatives]
  if (over.value === 'box') return [...under, ...boxMarks(shape.value.box, under)]
  const taken = new Set(under.map(placeKey))
  const notes = (lain.value?.notes ?? []).filter((note) => !taken.has(placeKey(note)))
  if (over.value === 'next') return [...under, ...notes.map((note) => ghost(note, note.spoken))]
  return [
    ...under,
    ...notes.map((note) => ({
      ...toneMark(note, 'box'),
      text: text(note),
      // In the blend the dot says which box has the note, not what it is.
      class: note.of ? { both: 'lean', minor: 'blue', major: 'colour' }[note.of] : note.class,
    })),
  ]
})

function ghost(tone: PlacedTone, spoken: string): Mark {
  return { ...toneMark(tone, 'ghost'), text: text(tone), root: false, small: undefined, spoken }
}

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
    ...(lain.value?.notes ?? []),
  ].find((tone) => picked.value && samePlace(tone, picked.value))
  return at && chord.value?.judgements.find((j) => j.note === at.note)
})
const legend = computed(() => {
  if (easier.value) return easier.value.sentence
  if (small.value) {
    const { name, strings, notes } = small.value
    return `${name} on ${strings}: ${notes.map((tone) => tone.degree).join(' ')}. Strummed when chosen; p plays it note by note.`
  }
  if (arpeggio.value) {
    const { chord: name, degrees: sung, leans } = arpeggio.value
    const lean = leans ? ` The ${leans} leans: move it on.` : ''
    return `${name} over ${chord.value?.chord ?? ''} gives ${sung.join(' ')}.${lean}`
  }
  if (over.value === 'next' && !lain.value?.name) return 'This tune stays on one chord: none comes next.'
  if (over.value === 'next')
    return `Ghosts are ${lain.value?.name}, the chord that comes next, as its own degrees.`
  if (lain.value) return `${lain.value.name}: ${lain.value.rule}.`
  if (over.value === 'box')
    return 'Dots are your box: ◐ blue · dashed colour · ● home or lean. Pick a note to read why.'
  return 'Pick a note to read why.'
})

/** The layouts as they can be chosen, with what they need. */
const layouts = computed(() => {
  const octaves = degrees.value.map((degree) => ({
    value: `one octave:${degree}`,
    text: `one octave from ${degree}`,
  }))
  return [
    { value: 'all tones', text: 'all tones' },
    ...octaves,
    { value: 'two a string', text: 'two a string, with the 9' },
    { value: 'three a string', text: 'three a string' },
    { value: 'some strings', text: 'only some strings' },
    { value: 'some frets', text: 'only some frets' },
  ]
})
const kind = computed(() => layoutText.value.split(':')[0] || 'all tones')
const chosenLayout = computed(() => (kind.value === 'one octave' ? layoutText.value : kind.value))
/** The strings or frets that a layout keeps to, as it is chosen, and those it may be chosen from. */
const bounds = computed(() => {
  const here = position.value
  if (!here || !tune.map || !kind.value.startsWith('some ')) return undefined
  const unit = kind.value === 'some strings' ? 'string' : 'fret'
  const [least, most] = unit === 'string' ? [1, tune.map.instrument.strings.length] : [here.low, here.high]
  const [low = 0, high = 0] = layoutText.value.split(':')[1]?.split('-').map(Number) ?? []
  return { unit, low, high, all: Array.from({ length: most - least + 1 }, (_, n) => String(least + n)) }
})
function chooseLayout(layout: string) {
  const here = position.value
  const begin: Record<string, string | undefined> = {
    'all tones': undefined,
    'some strings': 'some strings:1-3',
    'some frets': here && `some frets:${here.core}-${here.coreEnd}`,
  }
  void query.set({ layout: layout in begin ? begin[layout] : layout })
}
/** The other end comes along where the two would cross. */
function chooseBound(low: number, high: number, moved: 'low' | 'high') {
  const [from, to] = moved === 'low' ? [low, Math.max(low, high)] : [Math.min(low, high), high]
  void query.set({ layout: `${kind.value}:${from}-${to}` })
}

/** A note of a shape played up lasts an eighth; the strings of a strum follow this many ticks apart. */
const eighth = 240
const strum = 24

/** Plays notes from the lowest up, one after the other or strummed, without the band. */
function hear(notes: PlacedTone[], strummed = false) {
  const moment = view.moment.value
  if (!tune.chart || !tune.read || !moment || !notes.length) return
  const apart = strummed ? strum : eighth
  const events = notes.map((tone, index) => ({
    tick: index * apart,
    ticks: strummed || index === notes.length - 1 ? 4 * eighth : eighth,
    string: tone.string,
    fret: tone.fret,
  }))
  // One tone is only shown; a shape is played, and can be stopped.
  const sound = notes.length === 1 ? player.show : player.play
  void sound({
    chart: tune.chart,
    from: moment.bar,
    bars: Math.ceil(((notes.length + 4) * eighth) / tune.read.barTicks),
    countIn: 0,
    silent: ['click', 'bass', 'chords'],
    line: { meter: tune.chart.meter, events, start: (moment.bar - 1) * tune.read.barTicks },
  })
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
  const tone = [...tones.value, ...(shape.value?.box ?? []), ...(lain.value?.notes ?? [])].find((t) =>
    samePlace(t, place),
  )
  if (tone) hear([tone])
}

useSource('map', () => {
  if (!tune.chart || !view.moment.value || !tune.read) return undefined
  return { chart: tune.chart, from: view.moment.value.bar, bars: tune.read.facts.bars, countIn: 1 }
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
  { key: 'p', says: 'hear the shape', run: () => hear(small.value?.notes ?? shape.value?.tones ?? []) },
])
</script>

<template>
  <section v-if="tune.map && position && span && shape && chord && view.moment.value && view.position.value">
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
    <div class="bar">
      <span class="group" role="group" aria-label="Lay over it">
        <button
          v-for="o in overlays"
          :key="o.name"
          type="button"
          class="chip"
          :aria-pressed="over === o.name"
          @click="query.set({ over: o.name })"
        >
          {{ o.title }}
        </button>
      </span>
      <span class="group" role="group" aria-label="Degrees shown">
        <button
          v-for="degree in degrees"
          :key="degree"
          type="button"
          class="degree"
          :aria-label="`Show the ${signs(degree)}`"
          :aria-pressed="!hidden.has(degree)"
          @click="hide(degree)"
        >
          {{ signs(degree) }}
        </button>
      </span>
      <span class="group right">
        <PillSelect label="Layout" :chosen="chosenLayout" :options="layouts" @choose="chooseLayout" />
        <template v-if="bounds">
          <PillSelect
            :label="`First ${bounds.unit}`"
            :chosen="String(bounds.low)"
            :options="named(bounds.all)"
            @choose="(one) => chooseBound(Number(one), bounds!.high, 'low')"
          />
          –
          <PillSelect
            :label="`Last ${bounds.unit}`"
            :chosen="String(bounds.high)"
            :options="named(bounds.all)"
            @choose="(one) => chooseBound(bounds!.low, Number(one), 'high')"
          />
        </template>
        <PillSelect
          label="Labels"
          :chosen="label"
          :options="named([...labels])"
          @choose="(name) => query.set({ label: labels.find((one) => one === name) })"
        />
        <button
          type="button"
          class="chip"
          :aria-pressed="slide"
          :disabled="!tune.map.instrument.formed"
          title="Each chord at its own form's place, instead of staying in position"
          @click="query.set({ slide: !slide })"
        >
          slide
        </button>
        <button type="button" class="chip" :aria-pressed="full" @click="query.set({ full: !full })">
          full neck
        </button>
        <button
          type="button"
          class="chip"
          aria-label="Hear the shape"
          @click="hear(small?.notes ?? shape.tones)"
        >
          <i class="pi pi-volume-up" />
        </button>
      </span>
    </div>
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
          :aria-pressed="Boolean(easier)"
          @click="query.set({ easier: !easier })"
        >
          easier
        </button>
        <template v-if="shape.caution">{{ shape.caution }}</template>
        <template v-else>{{ Math.round(shape.stretchMm) }} mm from end to end</template>
      </span>
    </p>

    <MapBench :view-of-chord="shown!" :chord="chord" @hear="(notes) => hear(notes, true)" />
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
.bar {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 30px;
  margin-bottom: 4px;
  font-size: 0.88rem;
}
.group {
  display: flex;
  align-items: center;
  gap: 4px;
}
.bar .chip {
  padding: 0.14rem 0.6rem;
}
/* A degree that is hidden is struck out, not only paler. */
.degree {
  min-width: 28px;
  border: 1.5px solid var(--now);
  border-radius: 999px;
  background: var(--card);
  color: var(--now);
  font-weight: 700;
  padding: 0.1rem 0.4rem;
  cursor: pointer;
}
.degree[aria-pressed='false'] {
  border: 1.5px dashed var(--stone);
  color: var(--stone);
  font-weight: 450;
  text-decoration: line-through;
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
</style>
