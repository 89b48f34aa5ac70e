<script setup lang="ts">
import type { KeptLick, Lick } from '../../api/client'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { useView } from '../../address/view'
import HeardTab from '../../tab/HeardTab.vue'
import type { LicksQuery } from './address'
import type { Joining } from './joining'

/** Another lick played behind this one, with notes that lead over; or this one cut into its chords. */
const props = defineProps<{ work: Joining; licks: KeptLick[]; query: LicksQuery; strings: string[] }>()
defineEmits<{ keep: [lick: Lick]; keepAll: [licks: Lick[]] }>()
const view = useView()
const { other, notes, joined, refusal, parts } = props.work

const between = Array.from({ length: 7 }, (_, n) => n)
</script>

<template>
  <div>
    <p class="choices" role="group" aria-label="Cut into its chords">
      <span class="what quiet">cut</span>
      <template v-if="(parts?.length ?? 0) > 1">
        <span>{{ signs(parts!.map((p) => p.chords?.[0]?.chord ?? '').join(' · ')) }}</span>
        <button type="button" class="chip" @click="$emit('keepAll', parts ?? [])">
          Keep the {{ parts!.length }} parts
        </button>
      </template>
      <span v-else class="quiet">it is over one chord, so there is nothing to cut</span>
    </p>
    <p class="choices" role="group" aria-label="Notes between">
      <span class="what quiet">then</span>
      <PillSelect
        label="The lick behind it"
        placeholder="another lick"
        :chosen="other && String(other.id)"
        :options="licks.map((l) => ({ value: String(l.id), text: l.lick.name, ownName: true }))"
        @choose="(one) => query.set({ behind: Number(one) })"
      />
      <span class="quiet">with</span>
      <button
        v-for="n in between"
        :key="n"
        type="button"
        class="chip"
        :aria-pressed="n === notes"
        :aria-label="`${n} notes between`"
        @click="query.set({ between: n })"
      >
        {{ n }}
      </button>
      <span class="quiet">notes between, in {{ view.subdivision.value }}s</span>
    </p>
    <p v-if="!other" class="quiet">
      Choose the lick that is to be played behind this one; both are set into the tune's key, where the hand
      is.
    </p>
    <p v-else-if="refusal" role="alert">{{ signs(refusal) }}.</p>
    <HeardTab
      v-else-if="joined"
      :tab="joined.tab"
      :strings="strings"
      label="The two licks as tab"
      :says="joined.remark"
    >
      <button type="button" class="chip" @click="$emit('keep', joined.lick)">Keep as a lick</button>
    </HeardTab>
  </div>
</template>

<style scoped>
.choices {
  margin: 0 0 5px;
}
.choices .what {
  width: 2.6rem;
}
</style>
