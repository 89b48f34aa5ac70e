<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ChordView } from '../../api/client'
import { signs } from '../../controls/spelling'
import { useView } from '../../address/view'
import { useTune } from '../../document/tune'

/** The scales that a dominant can be played by; the one chosen is followed everywhere in the tune. */
const props = defineProps<{ viewOfChord: ChordView; chord: string }>()
const tune = useTune()
const view = useView()

const scales = computed(() => props.viewOfChord.scales)
const chosen = computed(() => scales.value.find((one) => one.chosenFor))
/** Whether the next choice is for the function; as the present one is, where there is one. */
const wanted = ref<boolean>()
const forFunction = computed(() => wanted.value ?? chosen.value?.chosenFor === 'function')

const keep = (scale: string, ofFunction: boolean) =>
  tune.edit({
    scale: { chord: props.chord, at: view.moment.value?.tick ?? 0, function: ofFunction, scale },
  })
/** Choosing what was chosen takes it back. */
function choose(one: (typeof scales.value)[number]) {
  if (one.chosenFor) return keep('', one.chosenFor === 'function')
  return keep(one.name, forFunction.value)
}
</script>

<template>
  <p v-if="!scales.length" class="quiet">
    Only a dominant has scales to choose from; {{ signs(chord) }} is played by
    {{ signs(viewOfChord.chordScale.name) }}.
  </p>
  <template v-else>
    <div class="scales">
      <button
        v-for="one in scales"
        :key="one.name"
        type="button"
        class="chip"
        :aria-pressed="one.held"
        :title="signs(one.use)"
        @click="choose(one)"
      >
        <b>{{ one.name }}</b> {{ one.adds.map((tone) => signs(tone.degree)).join(' ')
        }}<i v-if="one.chosenFor"> chosen</i>
      </button>
      <span class="quiet">for</span>
      <button type="button" class="chip" :aria-pressed="!forFunction" @click="wanted = false">
        {{ signs(chord) }}
      </button>
      <button type="button" class="chip" :aria-pressed="forFunction" @click="wanted = true">
        every {{ signs(viewOfChord.function) }}
      </button>
      <span class="quiet">{{ signs(scales.find((one) => one.held)?.use ?? '') }}</span>
    </div>
  </template>
</template>

<style scoped>
.scales {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  max-height: var(--panel-most, 7.07rem);
  overflow-y: auto;
}
.scales i {
  font-style: italic;
}
</style>
