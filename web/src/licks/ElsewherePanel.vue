<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { usePlayer } from '../sound/player'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import type { ElsewhereWork } from './elsewhere'
import TabView from './TabView.vue'

/** The same lick in other octaves, keys and positions, each with what it costs. */
const props = defineProps<{ work: ElsewhereWork }>()
defineEmits<{ keep: [] }>()
const tune = useTune()
const player = usePlayer()
const { groups, refusal, chosen } = props.work

const picked = ref<number>()
watch(chosen, () => (picked.value = undefined))
const why = computed(() => chosen.value?.tab?.events[player.event ?? picked.value ?? -1]?.why)
</script>

<template>
  <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
  <div v-else-if="tune.map">
    <p v-for="g in groups" :key="g.name" class="choices" role="group" :aria-label="g.name">
      <span class="what quiet">{{ g.name }}</span>
      <button
        v-for="p in g.places"
        :key="p.name"
        type="button"
        class="chip"
        :disabled="Boolean(p.refused)"
        :title="p.says"
        :aria-pressed="p === chosen"
        @click="work.choose(p.name)"
      >
        {{ signs(p.name) }}
      </button>
    </p>
    <template v-if="chosen?.tab">
      <TabView
        class="tab"
        label="The lick elsewhere as tab"
        :line="chosen.tab"
        :strings="tune.map.instrument.strings"
        :sounding="player.event"
        :chosen="picked"
        @pick="(index) => (picked = index)"
      />
      <p class="why">
        <template v-if="why">{{ signs(why) }}</template>
        <template v-else>
          {{ signs([chosen.says, ...chosen.lost].join('; ')) }}.
          <span v-if="chosen.caution" class="quiet"> {{ chosen.caution }}</span>
        </template>
      </p>
      <div class="acts">
        <button type="button" class="primary" @click="player.toggle()">
          {{ player.state === 'silent' ? 'Hear it' : 'Stop' }}
        </button>
        <span class="quiet">space</span>
        <button type="button" class="chip" @click="$emit('keep')">Keep as a lick</button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.choices {
  margin: 0 0 3px;
}
.choices .chip {
  padding: 0.05rem 0.55rem;
  font-size: 0.88rem;
}
.choices .what {
  width: 4.4rem;
}
.chip:disabled {
  text-decoration: line-through;
}
.tab {
  max-height: 176px;
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
