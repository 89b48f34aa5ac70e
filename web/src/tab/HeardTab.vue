<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Tab } from '../api/client'
import { usePlayer } from '../sound/player'
import { signs } from '../controls/spelling'
import { useTune } from '../document/tune'
import TabView from './TabView.vue'

/**
 * A phrase as tab that is heard with space: its notes with what they are, the reason of
 * the one that sounds or was picked, and what can be done with it beside.
 */
const props = defineProps<{
  tab: Tab
  label: string
  /** The open strings it is drawn on; left out for the tune's. */
  strings?: string[]
  /** What is said while no note is picked. */
  says?: string
  /** The notes that a figure speaks of. */
  marked?: number[]
}>()
const tune = useTune()
const player = usePlayer()
const picked = defineModel<number>('picked')
const own = ref<number>()
watch(
  () => props.tab,
  () => {
    own.value = undefined
    picked.value = undefined
  },
)
const chosen = computed(() => picked.value ?? own.value)
const why = computed(() => props.tab.events[player.event ?? chosen.value ?? -1]?.why)
function pick(index: number) {
  own.value = index
  picked.value = index
}
</script>

<template>
  <div v-if="tune.map">
    <TabView
      class="tab"
      :label="label"
      :line="tab"
      :strings="strings ?? tune.map.instrument.strings"
      :sounding="player.event"
      :chosen="chosen"
      :marked="marked ?? []"
      @pick="pick"
    />
    <slot name="between" />
    <p class="why">{{ signs(why ?? says ?? '') }}</p>
    <div class="acts">
      <button type="button" class="primary" @click="player.toggle()">
        {{ player.silent ? 'Hear it' : 'Stop' }}
      </button>
      <span class="quiet">space</span>
      <slot />
    </div>
  </div>
</template>

<style scoped>
.tab {
  max-height: var(--panel-most, var(--tab-height, 11.73rem));
}
.why {
  min-height: 1.4em;
  max-height: 2.8em;
  overflow-y: auto;
  margin: 2px 0 6px;
}
.acts {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
</style>
