<script setup lang="ts">
import { computed, onMounted } from 'vue'
import PillSelect from '../controls/PillSelect.vue'
import { standInKeysName, standInName, useInputChoice } from './inputchoice'

/** The input that is listened to. */
const props = defineProps<{
  /** The simulated player can be chosen here too. */
  standIn?: boolean
}>()
const input = useInputChoice()
/** What stand for the input that the machine takes first, and for the search for more. */
const firstInput = 'first'
const findKeys = 'find'
const options = computed(() => [
  { value: firstInput, text: 'the first input' },
  ...input.found,
  ...(input.hasKeys ? [] : [{ value: findKeys, text: 'look for MIDI instruments' }]),
  ...(props.standIn
    ? [
        { value: standInName, text: 'the simulated player' },
        { value: standInKeysName, text: 'the simulated player, as MIDI' },
      ]
    : []),
])
const chosen = computed(() => {
  const at = input.device || firstInput
  return options.value.some((option) => option.value === at) ? at : firstInput
})
function choose(value: string) {
  if (value === findKeys) void input.find(true)
  else input.device = value === firstInput ? '' : value
}
onMounted(() => void input.find())
</script>

<template>
  <PillSelect label="Input" :chosen="chosen" :options="options" @choose="choose" />
</template>
