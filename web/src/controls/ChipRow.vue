<script setup lang="ts">
/** One line of choices, of which one is on. */
defineProps<{ label: string; says: string; options: string[]; chosen: string; plural?: boolean }>()
defineEmits<{ choose: [option: string] }>()
</script>

<template>
  <div class="choices" role="group" :aria-label="label">
    <span class="what quiet">{{ says }}</span>
    <button
      v-for="option in options"
      :key="option"
      type="button"
      class="chip"
      :aria-pressed="option === chosen"
      @click="$emit('choose', option)"
    >
      {{ option }}{{ plural ? 's' : '' }}
    </button>
    <slot />
  </div>
</template>
