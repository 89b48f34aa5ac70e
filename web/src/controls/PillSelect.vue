<script setup lang="ts" generic="Value extends string">
import { computed, shallowRef } from 'vue'
import { Problem } from '../api/client'
import { reportFault } from '../api/fault'
import AppIcon from './AppIcon.vue'
import { pillText, type PillOption } from './pill'

/**
 * A list to choose one from, small enough to stand in a line of others. Until it is first opened it is no more than what is
 * chosen: the list itself is fetched when it is pointed at or has the keyboard, and made when it opens.
 */
const props = withDefaults(
  defineProps<{
    chosen: Value | undefined
    options: PillOption<Value>[]
    label: string
    placeholder?: string
  }>(),
  { placeholder: undefined },
)
defineEmits<{ choose: [value: Value] }>()

const fetchList = () => import('./PillList.vue')
type List = Awaited<ReturnType<typeof fetchList>>['default']
const PillList = shallowRef<List>()
const fetchSoon = () => void fetchList().catch(() => {})

const one = computed(() => props.options.find((option) => option.value === props.chosen))
const text = computed(() => (one.value ? pillText(one.value) : props.placeholder))
/** What is chosen may be cut where there is little room: then the title has it whole. */
const cutTitle = computed(() => (one.value && pillText(one.value).length > 12 ? one.value.text : undefined))

const openedBy = shallowRef<Event>()
/** Until the list is there the pill stays as it is: where it cannot be fetched the next press tries again. */
async function open(event: Event) {
  try {
    PillList.value ??= (await fetchList()).default
    openedBy.value = event
  } catch {
    reportFault(new Problem(0, 'The list cannot be opened: Undaris does not answer. Is it still running?'))
  }
}
/** Keys that open a list or find in it; all others are the page's. */
function openByKey(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const opens = ['Enter', ' ', 'ArrowDown', 'ArrowUp', 'Home', 'End'].includes(event.key)
  if (!opens && event.key.length > 1) return
  event.preventDefault()
  event.stopPropagation()
  void open(event)
}
</script>

<template>
  <component
    :is="PillList"
    v-if="openedBy && PillList"
    :chosen="chosen"
    :options="options"
    :label="label"
    :placeholder="placeholder"
    :title="cutTitle"
    :opened-by="openedBy"
    @choose="(value: string) => $emit('choose', value as Value)"
  />
  <div v-else class="pill p-select" :title="cutTitle" @click="open" @pointerenter="fetchSoon">
    <span
      class="p-select-label"
      :class="{ placeholder: !one }"
      role="combobox"
      tabindex="0"
      aria-haspopup="listbox"
      aria-expanded="false"
      :aria-label="label"
      @focus="fetchSoon"
      @keydown="openByKey"
      >{{ text }}</span
    >
    <span class="p-select-dropdown" aria-hidden="true"><AppIcon name="down" /></span>
  </div>
</template>

<style scoped>
.pill {
  display: inline-flex;
  flex: 0 1 auto;
  max-width: 100%;
  position: relative;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--card);
  color: var(--ink);
  cursor: pointer;
  user-select: none;
}
.pill:hover {
  border-color: var(--stone);
}
.pill:focus-within:has(:focus-visible) {
  outline: 2px solid var(--now);
  outline-offset: 2px;
}
/* Of no more weight than the library's own, so that what a page says of its labels holds for this one. */
:where(.p-select-label) {
  flex: 1 1 auto;
  width: 1%;
  overflow: hidden;
  padding: 0.25rem 0.1rem 0.25rem 0.75rem;
  font-size: 0.93rem;
  white-space: nowrap;
  text-overflow: ellipsis;
  outline: 0 none;
}
.placeholder {
  color: var(--stone);
}
:where(.p-select-dropdown) {
  display: flex;
  flex-shrink: 0;
  align-items: center;
  justify-content: center;
  width: 1.7rem;
  color: var(--stone);
}
</style>
