<script setup lang="ts" generic="Value extends string">
import Select from 'primevue/select'
import { nextTick, onMounted, ref } from 'vue'
import AppIcon from './AppIcon.vue'
import { pillText, type PillOption } from './pill'
import { signs } from './spelling'

/** The list behind a pill, from the moment it is first opened: by the mouse, or by a key that it is handed. */
const props = defineProps<{
  chosen: Value | undefined
  options: PillOption<Value>[]
  label: string
  placeholder: string | undefined
  title: string | undefined
  openedBy: Event
}>()
const emit = defineEmits<{ choose: [value: Value] }>()
const choose = (value: Value) => emit('choose', value)

const list = ref<{ $el: HTMLElement; show: (focus: boolean) => void }>()
onMounted(async () => {
  const field = list.value?.$el.querySelector<HTMLElement>('[role=combobox]')
  field?.focus()
  // A list that is there from the first moment is put beside nothing: it opens when what holds it is there.
  await nextTick()
  await nextTick()
  if (props.openedBy instanceof KeyboardEvent) {
    const { key, code } = props.openedBy
    field?.dispatchEvent(new KeyboardEvent('keydown', { key, code, bubbles: true }))
  } else list.value?.show(true)
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
    ref="list"
    class="pill"
    :model-value="chosen"
    :options="options"
    :option-label="pillText"
    option-value="value"
    :placeholder="placeholder"
    :aria-label="label"
    :title="title"
    scroll-height="36rem"
    @change="noteInput"
    @hide="letGo"
    @update:model-value="choose"
  >
    <template #dropdownicon><AppIcon name="down" /></template>
    <template v-if="options.some((one) => one.about)" #option="{ option }">
      <span class="option">
        {{ pillText(option) }}
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
