<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { microphone } from '../../sound/inputs'
import { useInputChoice } from '../../sound/inputchoice'
import { useRecording } from '../../sound/recording'
import { soundSource } from '../../sound/source'
import type { TakesWork } from './work'

/** The tuner: what sounds, how far from its note, and the open string that it is. */
const props = defineProps<{ work: TakesWork }>()
const recording = useRecording()
const input = useInputChoice()
const tune = useTune()
const hears = computed(() => recording.state === 'hearing')

const openSound = async () => soundSource(await microphone(input.soundDevice(), input.side))
const begin = () => recording.begin(openSound, props.work.emptyDraft(), tune.id, false)
onBeforeUnmount(() => {
  if (hears.value) void recording.cancel()
})
const note = computed(() => recording.sounding)
const cents = computed(() => Math.round(note.value?.cents ?? 0))
const inTune = computed(() => note.value !== undefined && Math.abs(cents.value) <= 3)
/** The string whose open note sounds, counted from 1; none for another note. */
const open = computed(() => note.value?.places.find((place) => place.fret === 0)?.string)
const says = computed(() => {
  if (!note.value)
    return hears.value
      ? 'Play one string and let it ring.'
      : 'The tuner listens while it is on; it keeps nothing.'
  const far = inTune.value
    ? 'in tune'
    : `${Math.abs(cents.value)} cents ${cents.value < 0 ? 'flat' : 'sharp'}`
  return open.value ? `string ${open.value}, ${far}` : far
})
</script>

<template>
  <div class="tuner">
    <button type="button" class="primary" @click="hears ? recording.cancel() : begin()">
      {{ hears ? 'Stop the tuner' : 'Start the tuner' }}
    </button>
    <span class="note" :class="{ good: inTune }">{{ note ? signs(note.note) : '–' }}</span>
    <span
      class="scale"
      role="meter"
      aria-label="Cents from the note"
      aria-valuemin="-50"
      aria-valuemax="50"
      :aria-valuenow="cents"
      :aria-valuetext="says"
    >
      <span class="mid" />
      <span v-if="note" class="needle" :class="{ good: inTune }" :style="{ left: `${50 + cents}%` }" />
    </span>
    <p role="status">{{ says }}</p>
    <ul aria-label="The open strings">
      <li
        v-for="(name, n) in tune.map?.instrument.strings ?? []"
        :key="n"
        :class="{ chosen: open === n + 1 }"
      >
        {{ signs(name) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.tuner {
  display: flex;
  align-items: center;
  gap: 22px;
  flex-wrap: wrap;
}
.note {
  font-size: 3.4rem;
  font-weight: 800;
  min-width: 2.4em;
  text-align: center;
}
.good {
  color: var(--now);
}
.scale {
  position: relative;
  width: min(340px, 100%);
  height: 26px;
  border-radius: 13px;
  background: var(--shade);
}
.mid {
  position: absolute;
  left: 50%;
  top: -4px;
  bottom: -4px;
  border-left: 2px solid var(--stone);
}
.needle {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 8px;
  margin-left: -4px;
  border-radius: 4px;
  background: var(--next);
}
.needle.good {
  background: var(--now);
}
ul {
  display: flex;
  flex-direction: row-reverse;
  gap: 8px;
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 4px 12px;
  border: 1px solid var(--line);
  border-radius: 14px;
}
li.chosen {
  border-color: var(--now);
  background: var(--shade);
  font-weight: 650;
}
ul {
  flex-wrap: wrap;
  min-width: 0;
}
</style>
