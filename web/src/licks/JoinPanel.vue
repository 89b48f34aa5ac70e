<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { KeptLick, Lick } from '../api/client'
import PillSelect from '../shell/PillSelect.vue'
import { usePlayer } from '../sound/player'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'
import type { Joining } from './joining'
import TabView from './TabView.vue'

/** Another lick played behind this one, with notes that lead over; or this one cut into its chords. */
const props = defineProps<{ work: Joining; lick: KeptLick; licks: KeptLick[] }>()
defineEmits<{ keep: [lick: Lick]; keepAll: [licks: Lick[]] }>()
const tune = useTune()
const view = useView()
const player = usePlayer()
const { other, notes, joined, refusal, parts } = props.work

const picked = ref<number>()
watch(joined, () => (picked.value = undefined))
const why = computed(() => joined.value?.tab.events[player.event ?? picked.value ?? -1]?.why)
const between = Array.from({ length: 7 }, (_, n) => n)
</script>

<template>
  <div v-if="tune.map">
    <p class="choices" role="group" aria-label="Cut into its chords">
      <span class="what quiet">cut</span>
      <template v-if="(parts?.length ?? 0) > 1">
        <span>{{ signs(parts!.map((p) => p.over?.[0]?.chord ?? '').join(' · ')) }}</span>
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
        :options="licks.map((l) => ({ value: String(l.id), text: l.lick.name }))"
        @choose="(one) => view.set({ with: one })"
      />
      <span class="quiet">with</span>
      <button
        v-for="n in between"
        :key="n"
        type="button"
        class="chip"
        :aria-pressed="n === notes"
        :aria-label="`${n} notes between`"
        @click="view.set({ notes: n ? String(n) : undefined })"
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
    <template v-else-if="joined">
      <TabView
        class="tab"
        label="The two licks as tab"
        :line="joined.tab"
        :strings="tune.map.instrument.strings"
        :sounding="player.event"
        :chosen="picked"
        @pick="(index) => (picked = index)"
      />
      <p class="why">{{ signs(why ?? joined.said) }}</p>
      <div class="acts">
        <button type="button" class="primary" @click="player.toggle()">
          {{ player.state === 'silent' ? 'Hear it' : 'Stop' }}
        </button>
        <span class="quiet">space</span>
        <button type="button" class="chip" @click="$emit('keep', joined.lick)">Keep as a lick</button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.choices {
  margin: 0 0 5px;
}
.choices .what {
  width: 2.6rem;
}
.tab {
  max-height: 200px;
}
.why {
  min-height: 1.4em;
  margin: 2px 0 6px;
}
.acts {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
</style>
