<script setup lang="ts">
import { computed } from 'vue'
import { useView } from '../../address/view'
import { signs } from '../../controls/spelling'
import { sentenceOf } from './looks'
import type { Standing } from './standing'
import type { SoloWork } from './work'

/** What is most important of the chorus now, and what can be done about it. */
const props = defineProps<{ work: SoloWork; standing: Standing }>()
defineEmits<{ repair: [] }>()
const view = useView()
const { shown, document } = props.work
const { elsewhere, planHere } = props.standing
const repair = computed(() => shown.value?.issues.find((c) => c.repairs.length)?.repairs[0])
</script>

<template>
  <p class="says">
    <template v-if="shown">
      <strong>
        Drop the band: {{ shown.figures.heard }} of {{ shown.figures.chords }} chords still say their name.
      </strong>
      <span class="first cut" :title="signs(sentenceOf(shown))">{{ signs(sentenceOf(shown)) }}</span>
      <span v-if="elsewhere" class="chips">
        <button type="button" class="chip" title="Plan it here (h)" @click="planHere">
          Plan it in the {{ elsewhere.label }}
        </button>
        <button type="button" class="chip" @click="view.setPosition('')">Back to the plan’s</button>
      </span>
      <button
        v-else-if="repair"
        type="button"
        class="chip"
        :title="`${signs(repair.text)} (f)`"
        @click="$emit('repair')"
      >
        Repair
      </button>
    </template>
    <template v-else-if="!document">
      <strong>No solo over this tune yet.</strong>
      <span>Plan a chorus: your licks, with a chord tone where each chord arrives.</span>
      <button type="button" class="primary" @click="work.begin()">Plan a chorus</button>
    </template>
  </p>
</template>

<style scoped>
.first {
  min-width: 0;
}
.says .chip,
.says .primary,
.says .chips {
  margin-left: auto;
  flex: none;
}
.says .chips {
  display: flex;
  gap: 6px;
}
.says strong {
  flex: none;
  max-width: 100%;
}
</style>
