<script setup lang="ts">
/**
 * A whole number that is typed, or walked with the arrows; beyond its bounds it is the nearest one within. Emptied it is no
 * number where there may be none, and else as it was.
 */
const props = defineProps<{
  value: number | undefined
  least?: number
  most?: number
  label: string
  placeholder?: string
  optional?: boolean
}>()
const emit = defineEmits<{ entered: [value: number | undefined] }>()

function typed(text: string): number | undefined {
  const number = Math.round(Number(text))
  if (text.trim() === '' || Number.isNaN(number)) return props.optional ? undefined : props.value
  return Math.min(Math.max(number, props.least ?? -Infinity), props.most ?? Infinity)
}
function take(event: Event) {
  const field = event.target as HTMLInputElement
  const value = typed(field.value)
  field.value = value === undefined ? '' : String(value)
  if (value !== props.value) emit('entered', value)
}
</script>

<template>
  <input
    class="number"
    type="number"
    :value="value"
    :min="least"
    :max="most"
    step="1"
    :placeholder="placeholder"
    :aria-label="label"
    @change="take"
  />
</template>

<style scoped>
.number {
  appearance: textfield;
}
.number::-webkit-inner-spin-button {
  appearance: none;
}
</style>
