<script setup lang="ts">
import Select from 'primevue/select'
import { signs } from '../tune/spelling'

/** A list to choose one from, small enough to stand in a line of others. */
withDefaults(
  defineProps<{
    chosen: string | undefined
    options: { value: string; text: string }[]
    label: string
    placeholder?: string
  }>(),
  { placeholder: undefined },
)
defineEmits<{ choose: [value: string] }>()
</script>

<template>
  <Select
    class="pill"
    :model-value="chosen"
    :options="options"
    :option-label="(option) => signs(option.text)"
    option-value="value"
    :placeholder="placeholder"
    :aria-label="label"
    scroll-height="36rem"
    @update:model-value="(value: string) => $emit('choose', value)"
  />
</template>

<style scoped>
.pill {
  flex: none;
  border-radius: 999px;
}
.pill :deep(.p-select-label) {
  padding: 0.25rem 0.1rem 0.25rem 0.75rem;
  font-size: 0.93rem;
}
.pill :deep(.p-select-dropdown) {
  width: 1.7rem;
}
</style>
