<script setup lang="ts">
import { signs } from '../../controls/spelling'
import type { VariantsWork } from './variants'
import HeardTab from '../../tab/HeardTab.vue'

/** The same lick in other octaves, keys and positions, each with what it costs. */
const props = defineProps<{ work: VariantsWork; strings: string[] }>()
defineEmits<{ keep: [] }>()
const { groups, refusal, chosen } = props.work
</script>

<template>
  <p v-if="refusal" role="alert">{{ signs(refusal) }}.</p>
  <div v-else>
    <p v-for="g in groups" :key="g.name" class="choices" role="group" :aria-label="g.name">
      <span class="what quiet">{{ g.name }}</span>
      <button
        v-for="p in g.places"
        :key="p.name"
        type="button"
        class="chip"
        :disabled="Boolean(p.refused)"
        :title="p.text"
        :aria-pressed="p === chosen"
        @click="work.choose(p.name)"
      >
        {{ signs(p.name) }}
      </button>
    </p>
    <HeardTab
      v-if="chosen?.tab"
      :tab="chosen.tab"
      :strings="strings"
      label="The variant as tab"
      :says="`${[chosen.text, ...chosen.lost].join('; ')}. ${chosen.caution ?? ''}`"
    >
      <button type="button" class="chip" @click="$emit('keep')">Keep as a lick</button>
    </HeardTab>
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
</style>
