<script setup lang="ts" generic="Value extends string">
import Select from 'primevue/select'
import { computed } from 'vue'
import { signs } from './spelling'

/** A list to choose one from, small enough to stand in a line of others. */
const props = withDefaults(
  defineProps<{
    chosen: Value | undefined
    /**
     * What can be chosen, and what each is in a line, shown in the list. A text that is somebody's own
     * name for a thing is shown as it is.
     */
    options: { value: Value; text: string; about?: string; ownName?: boolean }[]
    label: string
    placeholder?: string
  }>(),
  { placeholder: undefined },
)
const emit = defineEmits<{ choose: [value: Value] }>()
const choose = (value: Value) => emit('choose', value)

const shownText = (option: { text: string; ownName?: boolean }) =>
  option.ownName ? option.text : signs(option.text)

/** What is chosen may be cut where there is little room: then the title has it whole. */
const cutTitle = computed(() => {
  const one = props.options.find((option) => option.value === props.chosen)
  return one && shownText(one).length > 12 ? one.text : undefined
})

// Chosen with the mouse it lets go of the keyboard, so that the next key is the
// page's again: space plays, arrows walk. Chosen by keys it keeps its place.
let byMouse = false
const noteInput = (event: { originalEvent: Event }) => (byMouse = event.originalEvent.type !== 'keydown')
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
    :option-label="shownText"
    option-value="value"
    :placeholder="placeholder"
    :aria-label="label"
    :title="cutTitle"
    scroll-height="36rem"
    @change="noteInput"
    @hide="letGo"
    @update:model-value="choose"
  >
    <template v-if="options.some((one) => one.about)" #option="{ option }">
      <span class="option">
        {{ shownText(option) }}
        <small>{{ signs(option.about ?? '') }}</small>
      </span>
    </template>
  </Select>
</template>

<style scoped>
.pill {
  flex: 0 1 auto;
  max-width: 100%;
  border-radius: 999px;
}
.pill :deep(.p-select-label) {
  padding: 0.25rem 0.1rem 0.25rem 0.75rem;
  font-size: 0.93rem;
}
.option {
  display: flex;
  flex-direction: column;
}
.option small {
  opacity: 0.8;
}
.pill :deep(.p-select-dropdown) {
  width: 1.7rem;
}
</style>
