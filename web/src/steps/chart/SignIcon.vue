<script setup lang="ts">
/** The two signs of a form as they are drawn on paper, in the size of the text. */
defineProps<{ sign: 'segno' | 'coda' }>()
</script>

<template>
  <svg v-if="sign === 'segno'" viewBox="0 0 16 20" aria-hidden="true">
    <path d="M11.5 5.5C10.5 2 4.5 2 4.5 6c0 4 7 4 7 8 0 4-6 4-7 .5" />
    <path d="M13 2 3 18" />
    <circle cx="13" cy="9" r="1.3" />
    <circle cx="3" cy="11" r="1.3" />
  </svg>
  <svg v-else viewBox="0 0 16 20" aria-hidden="true">
    <ellipse cx="8" cy="10" rx="4.5" ry="6" />
    <path d="M8 1v18M0 10h16" />
  </svg>
</template>

<style scoped>
svg {
  width: 0.95em;
  height: 1.2em;
  margin-right: 4px;
  vertical-align: -0.2em;
}
path,
ellipse {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.8;
}
circle {
  fill: currentColor;
}
</style>
