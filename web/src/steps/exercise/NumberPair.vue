<script setup lang="ts">
import { computed } from 'vue'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'

/** A first and a last number of strings or frets; the first is never past the last. */
const props = defineProps<{
  label: string
  says: string
  low: number
  high: number
  least: number
  most: number
}>()
const emit = defineEmits<{ choose: [low: number, high: number] }>()
const all = computed(() =>
  named(Array.from({ length: props.most - props.least + 1 }, (_, n) => String(props.least + n))),
)
const chooseLow = (low: number) => emit('choose', low, Math.max(low, props.high))
const chooseHigh = (high: number) => emit('choose', Math.min(props.low, high), high)
</script>

<template>
  <span class="pair">
    {{ says }}
    <PillSelect
      :label="`First ${label}`"
      :chosen="String(low)"
      :options="all"
      @choose="(one) => chooseLow(Number(one))"
    />
    –
    <PillSelect
      :label="`Last ${label}`"
      :chosen="String(high)"
      :options="all"
      @choose="(one) => chooseHigh(Number(one))"
    />
  </span>
</template>

<style scoped>
.pair {
  display: inline-flex;
  align-items: center;
  gap: 3px;
  font-size: 0.9rem;
  color: var(--stone);
}
</style>
