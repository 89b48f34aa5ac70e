<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import NeckView from '../../neck/NeckView.vue'
import { emptyMarks, type Mark } from '../../neck/marks'
import { withPlayed } from '../../neck/played'
import ListenBar from '../../sound/ListenBar.vue'
import { usePlayer } from '../../sound/player'
import { useRecording } from '../../sound/recording'
import { degrees, noteSets, useTimed } from './timed'

/** Resolve in time: the one tone asked for at each change, and nothing but the notes asked for. */
const tune = useTune()
const view = useView()
const player = usePlayer()
const drill = useTimed()
const { degree, notes, hits, marks, problem, running, timed, refusal, latencyMs } = drill
const open = computed(() => timed.value?.open ?? [])
const recording = useRecording()

const tick = ref(0)
let painting = requestAnimationFrame(function paint() {
  if (running.value) tick.value = drill.now() ?? 0
  painting = requestAnimationFrame(paint)
})
onBeforeUnmount(() => {
  cancelAnimationFrame(painting)
  void player.stop()
})
/** The change that is coming, or that was met a moment ago. */
const target = computed(() => {
  const all = timed.value?.targets ?? []
  return all.find((one) => one.tick >= tick.value - 240) ?? all[0]
})
const position = computed(() => view.position.value)
const neckMarks = computed<Mark[]>(() => {
  const span = position.value
  if (!span || !tune.map) return []
  const last = hits.value.at(-1)?.place
  const lit: Mark[] = last
    ? [
        {
          ...last,
          form: 'tone',
          text: '•',
          root: false,
          class: 'chordTone',
          spoken: `played, string ${last.string}, fret ${last.fret}`,
        },
      ]
    : []
  const shown = [...emptyMarks(tune.map.instrument.strings.length, span, lit), ...lit]
  return withPlayed(shown, recording.sounding, span)
})
function pick(place: { string: number; fret: number }) {
  const low = open.value[place.string - 1]
  if (low !== undefined) drill.strike(low + place.fret, place)
}
const degreeName = (n: number) => (n === 1 ? 'R' : String(n))
const timingWord: Record<string, string> = { on: '✓', early: '←', late: '→', missed: '–', 'other note': '×' }
/** What was not asked for, each said once. */
const wrong = computed(() => [
  ...new Set(marks.value?.hits.filter((hit) => !hit.right).map((hit) => signs(hit.text))),
])
useKeys([{ key: 'p', says: 'play a chorus, and stop', run: drill.start }])
</script>

<template>
  <div class="timed">
    <p v-if="problem || refusal" class="warn" role="alert">{{ signs(problem || refusal) }}</p>
    <div class="row">
      <span class="choices" role="group" aria-label="The tone at each change">
        <span class="quiet">at each change</span>
        <button
          v-for="one in degrees"
          :key="one"
          type="button"
          class="chip"
          :aria-pressed="degree === one"
          :disabled="running"
          @click="degree = one"
        >
          the {{ degreeName(one) }}
        </button>
      </span>
      <span class="choices" role="group" aria-label="The notes between">
        <span class="quiet">between, only</span>
        <button
          v-for="one in noteSets"
          :key="one"
          type="button"
          class="chip"
          :aria-pressed="notes === one"
          :disabled="running"
          @click="notes = one"
        >
          {{ one }}
        </button>
      </span>
      <span class="right">
        <button type="button" class="chip" :disabled="running" @click="drill.hearTargets()">
          hear the targets
        </button>
        <ListenBar :listening="drill.listening" :disabled="running" />
        <button type="button" class="primary" @click="drill.start()">
          {{ running ? 'Stop (p)' : 'Play a chorus (p)' }}
        </button>
      </span>
    </div>
    <div class="asked">
      <template v-if="target">
        <b class="chord">{{ signs(target.chord) }}</b>
        <div>
          <h2>{{ signs(`${target.note}, the ${target.degree}`) }}</h2>
          <p class="quiet">bar {{ target.bar }} · string {{ target.string }}, fret {{ target.fret }}</p>
        </div>
      </template>
      <p v-if="marks" class="sum" role="status">{{ marks.text }}</p>
    </div>
    <NeckView
      v-if="tune.map && position"
      class="neck"
      :instrument="tune.map.instrument"
      :span="position"
      :marks="neckMarks"
      :spacing="34"
      label="The neck to play on"
      @pick="pick"
    />
    <ol v-if="timed" class="changes" aria-label="The changes">
      <li
        v-for="(one, n) in timed.targets"
        :key="n"
        :class="marks?.targets[n]?.timing.replace(' ', '-')"
        :title="signs(marks?.targets[n]?.text ?? '')"
      >
        <b>{{ signs(one.chord) }}</b> <span>{{ signs(one.degree) }}</span>
        <small v-if="marks?.targets[n]">
          {{ timingWord[marks.targets[n]!.timing] }}
          {{
            ['early', 'late'].includes(marks.targets[n]!.timing)
              ? `${Math.abs(marks.targets[n]!.offMs)} ms`
              : ''
          }}
        </small>
      </li>
    </ol>
    <p v-if="marks && wrong.length" class="quiet">Not asked for: {{ wrong.slice(0, 3).join(' · ') }}</p>
    <p v-if="marks && marks.met > 3 && !drill.listening.listens.value" class="quiet">
      In the middle {{ Math.abs(marks.middleMs) }} ms {{ marks.middleMs < 0 ? 'early' : 'late' }};
      {{ latencyMs }} ms are taken off already.
      <button type="button" class="chip" @click="drill.takeLatency()">
        take that as the way from hand to page
      </button>
    </p>
    <p class="quiet care">
      Click the neck in time, or let it listen to your guitar or your MIDI instrument. On is within 60 ms.
      Headphones, and low.
    </p>
  </div>
</template>

<style scoped>
.timed {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.row,
.right,
.asked {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 1rem;
}
.choices {
  margin: 0;
  display: flex;
  align-items: center;
  gap: 4px;
}
.right {
  margin-left: auto;
}
.chord {
  font-size: 3rem;
  line-height: 1;
  color: var(--now);
}
.sum {
  margin-left: auto;
  font-size: 1.15rem;
  font-weight: 650;
}
.changes {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.changes li {
  padding: 0.2rem 0.6rem;
  border: 1.5px solid var(--line);
  border-radius: 9px;
}
.changes .on {
  border-color: var(--now);
  background: var(--now-tint);
}
.changes .early,
.changes .late,
.changes .other-note {
  border-color: var(--next);
}
.changes .missed {
  border-style: dashed;
}
.care {
  margin-top: auto;
}
.warn {
  color: var(--next);
}
</style>
