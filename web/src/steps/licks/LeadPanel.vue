<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Place, Target } from '../../api/client'
import { samePlace } from '../../neck/geometry'
import PillSelect from '../../controls/PillSelect.vue'
import { named } from '../../controls/options'
import { usePlayer } from '../../sound/player'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import ChipRow from '../../controls/ChipRow.vue'
import type { LineWork } from './line'
import TabView from '../../tab/TabView.vue'

/** A lick led over the change: where it lands, by what approach, and the line that comes of it. */
const props = defineProps<{ work: LineWork }>()
defineEmits<{ land: [place: Place]; near: [place: Place] }>()
const tune = useTune()
const view = useView()
const player = usePlayer()
const {
  targets,
  line,
  opened: kept,
  approach,
  subdivision,
  subdivisions,
  refusal,
  nearest,
  notice,
  deleted,
} = props.work

const chosen = ref<number>()
watch(line, () => (chosen.value = undefined))
const why = computed(() => line.value?.events[player.event ?? chosen.value ?? -1]?.why)
const targetText = (place: Place) => `${place.string}:${place.fret}`
const isTarget = (tone: Place) => (view.target.value ? samePlace(tone, view.target.value) : false)
const targetName = (tone: Target) =>
  `${signs(tone.note)}, the ${signs(tone.degree)}, string ${tone.string} fret ${tone.fret}`
</script>

<template>
  <template v-if="!kept">
    <div class="choices" role="group" aria-label="Target">
      <span class="what quiet">land on</span>
      <button
        type="button"
        class="chip"
        :aria-pressed="!view.target.value"
        @click="view.set({ target: undefined })"
      >
        best
      </button>
      <button
        v-for="tone in targets"
        :key="targetText(tone)"
        type="button"
        class="chip target"
        :aria-pressed="isTarget(tone)"
        :aria-label="`Land on ${targetName(tone)}`"
        @click="$emit('land', tone)"
      >
        <b>{{ signs(tone.degree) }}</b>{{ ' ' }}
        <small>{{ signs(tone.note) }} {{ tone.string }}:{{ tone.fret }}</small>
      </button>
    </div>
    <ChipRow
      label="Subdivision"
      says="in"
      plural
      :options="subdivisions"
      :chosen="subdivision"
      @choose="(one) => view.set({ sub: one })"
    >
      <span class="quiet by">by</span>
      <PillSelect
        label="Approach"
        :chosen="approach"
        :options="named(tune.choices?.approaches)"
        @choose="(one) => view.set({ approach: one })"
      />
    </ChipRow>
  </template>

  <div v-if="refusal && !kept" class="refusal" role="alert">
    <p>{{ signs(refusal) }}.</p>
    <p v-if="nearest.length" class="choices">
      <button
        v-for="tone in nearest"
        :key="targetText(tone)"
        type="button"
        class="chip"
        @click="$emit('land', tone)"
      >
        {{ targetName(tone) }}
      </button>
    </p>
  </div>
  <template v-else-if="line && tune.map">
    <TabView
      :line="line"
      :strings="tune.map.instrument.strings"
      :sounding="player.event"
      :chosen="chosen"
      @pick="(index) => (chosen = index)"
    />
    <p class="why">
      <template v-if="why">{{ signs(why) }}</template>
      <template v-else>{{ signs(line.notes.join(' ')) }}</template>
    </p>
    <div class="acts">
      <button type="button" class="primary" @click="player.toggle()">
        {{ player.silent ? 'Hear it' : 'Stop' }}
      </button>
      <span class="quiet">space</span>
      <button v-if="kept" type="button" class="chip" @click="work.takeUp()">Work on it again</button>
      <template v-else>
        <button type="button" class="chip" @click="work.keep()">Keep the line</button>
        <button type="button" class="chip" @click="$emit('near', line.target)">Licks that end near it</button>
      </template>
      <span role="status" class="quiet">
        {{ notice }}
        <button v-if="deleted" type="button" class="chip" @click="work.restore()">Restore it</button>
      </span>
      <span v-if="!notice" class="quiet care">headphones low; rest every 25 minutes</span>
    </div>
  </template>
</template>

<style scoped>
.target {
  padding-inline: 0.5rem;
}
small {
  margin-left: 0.3rem;
  font-size: 0.8rem;
}
.by {
  margin-left: 1rem;
}
.refusal {
  margin-top: 1rem;
  padding: 0.8rem 1rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.refusal .choices {
  margin: 0.6rem 0 0;
}
.why {
  min-height: 2.7em;
  margin: 2px 0 6px;
}
.acts {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
.care {
  margin-left: auto;
  font-size: 0.85rem;
}
</style>
