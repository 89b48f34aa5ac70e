<script setup lang="ts">
import type { KeptLick } from '../../api/client'
import PillSelect from '../../controls/PillSelect.vue'
import { useTune } from '../../document/tune'
import type { LicksQuery } from './address'
import type { Keeping } from './keeping'

/** Beside the tabs: what was kept last, where the lick is taken, and its file. */
defineProps<{ query: LicksQuery; keeping: Keeping; lick: KeptLick | undefined; fresh: boolean }>()
const tune = useTune()
</script>

<template>
  <span role="status" class="quiet said">
    {{ keeping.notice.value }}
    <button v-if="keeping.last.value" type="button" class="chip" @click="keeping.takeBack()">
      Take it back
    </button>
    <button v-if="keeping.gone.value" type="button" class="chip" @click="keeping.restore()">
      Bring {{ keeping.gone.value.lick.name }} back
    </button>
  </span>
  <template v-if="query.panel.value === 'write'">
    <template v-if="!fresh && lick">
      <PillSelect
        label="Export as"
        placeholder="export"
        :chosen="undefined"
        :options="(tune.choices?.lickFormats ?? []).map((f) => ({ value: f.name, text: f.title }))"
        @choose="(format) => keeping.takeAway(lick!.id, format)"
      />
      <button type="button" class="chip" @click="keeping.remove(lick)">Delete</button>
    </template>
  </template>
  <span
    v-else-if="!['lead', 'import', 'versions'].includes(query.panel.value)"
    class="where"
    role="group"
    aria-label="Where the lick is taken"
  >
    <button
      type="button"
      class="chip"
      :aria-pressed="!query.here.value"
      title="In its own key, on its own strings and frets (c)"
      @click="query.set({ here: false })"
    >
      as written
    </button>
    <button
      type="button"
      class="chip"
      :aria-pressed="query.here.value"
      title="In the tune's key, where the hand is (c)"
      @click="query.set({ here: true })"
    >
      under the hand
    </button>
  </span>
</template>

<style scoped>
.where {
  display: flex;
  gap: 6px;
}
</style>
