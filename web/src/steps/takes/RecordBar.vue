<script setup lang="ts">
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import InputChoice from '../../sound/InputChoice.vue'
import { useRecording } from '../../sound/recording'
import type { TakesWork } from './work'

/** What is recorded and from where: the input, its level, and the one button. */
const props = defineProps<{ work: TakesWork }>()
const { solo, solos, refusal } = props.work
const recording = useRecording()

const busy = () => recording.state === 'opening' || recording.state === 'keeping'
const minutes = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`
/** The level as a share of a meter that begins at −60 dB. */
const share = (level: number | undefined) => Math.max(0, Math.min(1, ((level ?? -120) + 60) / 60))
</script>

<template>
  <div class="bar">
    <button
      v-if="recording.recordsNow"
      type="button"
      class="record on"
      title="End the take and keep it (r)"
      @click="work.stop()"
    >
      <span class="light" aria-hidden="true" />End the take
    </button>
    <button
      v-else
      type="button"
      class="record"
      :disabled="busy()"
      title="Record a take (r)"
      @click="work.record()"
    >
      <span class="light" aria-hidden="true" />{{
        recording.state === 'keeping' ? 'Keeping it' : 'Record a take'
      }}
    </button>
    <span v-if="recording.recordsNow" class="time" role="timer">{{ minutes(recording.seconds) }}</span>
    <button v-if="recording.recordsNow" type="button" class="chip" @click="work.cancel()">
      throw it away
    </button>
    <template v-else>
      <InputChoice stand-in />
      <PillSelect
        v-if="solos.entries.length"
        label="What is meant"
        :chosen="String(solo)"
        :options="[
          { value: '0', text: 'no plan: free' },
          ...solos.entries.map((s) => ({ value: String(s.id), text: s.name, ownName: true })),
        ]"
        @choose="(id) => (solo = Number(id))"
      />
    </template>
    <span
      class="meter"
      role="meter"
      aria-label="Level of the input"
      aria-valuemin="-60"
      aria-valuemax="0"
      :aria-valuenow="Math.round(recording.heard?.level ?? -60)"
    >
      <span class="level" :style="{ width: `${100 * share(recording.heard?.level)}%` }" />
    </span>
    <span v-if="recording.heard?.clipped" class="warn" role="alert">too loud: turn the input down</span>
    <span v-if="recording.sounding" class="now" aria-live="off">{{ signs(recording.sounding.note) }}</span>
    <span class="quiet right">Nothing is recorded without a press, and nothing leaves this machine.</span>
  </div>
  <p v-if="refusal || recording.trouble || recording.sides" class="warn says" role="alert">
    {{ refusal || recording.trouble || recording.sides }}.
  </p>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.record {
  display: inline-flex;
  align-items: center;
  gap: 10px;
  padding: 9px 18px;
  border-radius: 22px;
  border: 2px solid var(--next);
  background: var(--card);
  color: var(--ink);
  font-weight: 650;
  font-size: 1.05rem;
  cursor: pointer;
}
.record.on {
  background: var(--next);
  color: var(--card);
}
.light {
  width: 14px;
  height: 14px;
  border-radius: 50%;
  background: var(--next);
}
.on .light {
  border-radius: 2px;
  background: var(--card);
}
.time {
  font-variant-numeric: tabular-nums;
  font-weight: 650;
  font-size: 1.2rem;
}
.meter {
  width: 140px;
  height: 12px;
  border-radius: 6px;
  background: var(--shade);
  overflow: hidden;
}
.level {
  display: block;
  height: 100%;
  background: var(--now);
}
.now {
  font-weight: 750;
  font-size: 1.4rem;
  color: var(--now);
}
.warn {
  color: var(--next);
}
.says {
  margin: 6px 0 0;
}
.right {
  margin-left: auto;
}
</style>
