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

// Chosen with the mouse it lets go of the keyboard, so that the next key is the
// page's again: space plays, arrows walk. Chosen by keys it keeps its place.
let byMouse = false
function letGo() {
  if (byMouse && document.activeElement instanceof HTMLElement) document.activeElement.blur()
  byMouse = false
}
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
    @change="(event) => (byMouse = event.originalEvent.type !== 'keydown')"
    @hide="letGo"
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
