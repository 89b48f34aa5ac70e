<script setup lang="ts">
import AppIcon from '../controls/AppIcon.vue'
import Dialog from 'primevue/dialog'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import type { Instrument } from '../api/client'
import SaveNotice from '../document/SaveNotice.vue'
import { signs } from '../controls/spelling'
import { useTune } from '../document/tune'
import { useHands } from '../document/hands'

const visible = defineModel<boolean>('visible', { required: true })
const tune = useTune()
const hands = useHands()

const presets = computed(() => tune.choices?.instruments ?? [])
const own = computed(() => hands.player.instruments ?? [])
const now = computed(() => hands.player.instrument ?? presets.value[0])
const draft = ref<Instrument>({ name: '', tuning: '', frets: 22, scaleMm: 648 })
const nearest = computed(() => hands.refusal?.instrument)

watch(visible, begin, { immediate: true })
function begin(open: boolean) {
  if (open && now.value) draft.value = { ...now.value }
  hands.refusal = undefined
}
/** The tuning without its octaves, as players say it. */
const short = (i: Instrument) => i.tuning.replace(/-?\d/g, '')

async function take(instrument: Instrument) {
  const standard = instrument.name === presets.value[0]?.name
  if (await hands.keep({ instrument: standard ? undefined : instrument })) draft.value = { ...instrument }
}
async function keepDraft() {
  const name = draft.value.name.trim()
  const taken = presets.value.some((i) => i.name === name)
  const tuned = draft.value.tuning.trim()
  if (await hands.keepOwn({ ...draft.value, name: taken || !name ? tuned.slice(0, 40) : name })) {
    if (now.value) draft.value = { ...now.value }
  }
}
function useNearest() {
  if (!nearest.value) return
  draft.value = { ...nearest.value }
  void keepDraft()
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    dismissable-mask
    header="Neck and hands"
    :style="{ width: '46rem' }"
  >
    <SaveNotice :document="hands.kept" what="player" :mended="hands.mended" />
    <div v-if="now" class="rows">
      <h2 id="tunings">Tuning</h2>
      <div class="chips" role="group" aria-labelledby="tunings">
        <button
          v-for="i in presets"
          :key="i.name"
          type="button"
          class="chip"
          :aria-pressed="now.name === i.name"
          :title="signs(i.tuning)"
          @click="take(i)"
        >
          {{ i.name }} <small>{{ signs(short(i)) }}</small>
        </button>
        <span v-for="i in own" :key="i.name" class="own">
          <button type="button" class="chip" :aria-pressed="now.name === i.name" @click="take(i)">
            {{ i.name }} <small v-if="short(i) !== i.name">{{ signs(short(i)) }}</small>
          </button>
          <button
            type="button"
            class="forget"
            :aria-label="`Forget ${i.name}`"
            @click="hands.forgetOwn(i.name)"
          >
            <AppIcon name="times" />
          </button>
        </span>
      </div>

      <h2>Your own</h2>
      <form class="draft" @submit.prevent="keepDraft">
        <label>Name <InputText v-model="draft.name" maxlength="40" /></label>
        <label class="wide"
          >Strings, lowest first
          <InputText v-model="draft.tuning" spellcheck="false" placeholder="D A D G A D"
        /></label>
        <label
          >Frets
          <InputNumber
            v-model="draft.frets"
            :min="tune.choices?.frets.least"
            :max="tune.choices?.frets.most"
            :use-grouping="false"
        /></label>
        <label
          >Scale, mm
          <InputNumber
            v-model="draft.scaleMm"
            :min="tune.choices?.scaleMm.least"
            :max="tune.choices?.scaleMm.most"
            :use-grouping="false"
        /></label>
        <button type="submit" class="chip">Keep as mine</button>
      </form>
      <p v-if="hands.refusal" class="refusal" role="alert">
        {{ signs(hands.refusal.message) }}.
        <button v-if="nearest" type="button" class="chip" @click="useNearest">
          Use the nearest: {{ signs(nearest.tuning) }}, {{ nearest.frets }} frets
        </button>
      </p>

      <h2>Drawn</h2>
      <div class="chips">
        <button
          type="button"
          class="chip"
          :aria-pressed="Boolean(hands.player.leftHanded)"
          @click="hands.keep({ leftHanded: !hands.player.leftHanded })"
        >
          left-handed
        </button>
        <button
          type="button"
          class="chip"
          :aria-pressed="Boolean(hands.player.lowOnTop)"
          @click="hands.keep({ lowOnTop: !hands.player.lowOnTop })"
        >
          lowest string on top
        </button>
      </div>

      <h2 id="span">Your span</h2>
      <p class="span">
        <InputNumber
          :model-value="hands.player.spanMm ?? tune.choices?.span"
          :min="tune.choices?.spanMm.least"
          :max="tune.choices?.spanMm.most"
          :use-grouping="false"
          suffix=" mm"
          aria-label="Your span"
          @update:model-value="(mm: number | null) => mm && hands.keep({ spanMm: mm })"
        />
        <span class="quiet">
          From first to little finger, without strain. Wider shapes are marked, with what is easier. Warm up
          first, stop at any pain; if something keeps hurting, ask a professional.
        </span>
      </p>
      <template v-if="hands.player.swaps?.length">
        <h2>Moved</h2>
        <p class="span">
          {{ hands.player.swaps.length }} of the tones lie where you want them.
          <button type="button" class="chip" @click="hands.keep({ swaps: [] })">Reset all</button>
        </p>
      </template>
    </div>
  </Dialog>
</template>

<style scoped>
.rows {
  display: grid;
  grid-template-columns: 6rem 1fr;
  gap: 1rem;
  align-items: baseline;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
small {
  opacity: 0.85;
}
.own {
  display: inline-flex;
}
.forget {
  border: 0;
  background: none;
  color: var(--stone);
  cursor: pointer;
}
.draft {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: flex-end;
}
label {
  display: flex;
  flex-direction: column;
  font-size: 0.85rem;
  color: var(--stone);
}
label :deep(input) {
  width: 6rem;
  padding: 0.3rem 0.6rem;
}
label.wide :deep(input) {
  width: 14rem;
}
.refusal {
  grid-column: 1 / -1;
  padding: 0.6rem 0.9rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.span {
  display: flex;
  gap: 1rem;
  align-items: center;
}
.span :deep(input) {
  width: 6rem;
  padding: 0.3rem 0.6rem;
}
</style>
