<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'

/** A short text that takes effect when it is left or confirmed. */
const props = defineProps<{ label: string; value: string; placeholder?: string; width: number }>()
const emit = defineEmits<{ change: [text: string] }>()
const text = ref(props.value)
watch(
  () => props.value,
  (now) => (text.value = now),
)
</script>

<template>
  <InputText
    v-model="text"
    size="small"
    :aria-label="label"
    :placeholder="placeholder"
    :style="{ width: `${width}rem` }"
    @change="emit('change', text.trim())"
  />
</template>
