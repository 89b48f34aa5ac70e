<script setup lang="ts">
import { computed } from 'vue'
import type { ExerciseChoice } from '../../api/client'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'

/** One choice of an exercise: what it is called, what is chosen, and what that is in a line. */
const props = defineProps<{
  label: string
  choices: ExerciseChoice[]
  /** The name that is chosen; nothing for the first. */
  chosen: string | undefined
}>()
defineEmits<{ choose: [name: string | undefined] }>()

const now = computed(() => props.choices.find((c) => c.name === (props.chosen ?? '')) ?? props.choices[0])
/** A choice without a name is shown as "none". */
const options = computed(() =>
  props.choices.map((c) => ({ value: c.name, text: c.name || 'none', about: c.text })),
)
</script>

<template>
  <div class="row">
    <span class="label">{{ label }}</span>
    <div>
      <PillSelect
        :label="label"
        :chosen="now?.name"
        :options="options"
        @choose="(name) => $emit('choose', name === choices[0]?.name ? undefined : name)"
      />
      <span v-if="$slots.default" class="beside"><slot /></span>
      <p class="about">{{ signs(now?.text ?? '') }}</p>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 4.2rem minmax(0, 1fr);
  align-items: start;
}
.label {
  padding-top: 5px;
  color: var(--stone);
  font-size: 0.9rem;
}
.about {
  margin: 1px 0 7px 0.4rem;
  font-size: 0.84rem;
  color: var(--stone);
}
.beside {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  margin-left: 6px;
  vertical-align: middle;
}
</style>
