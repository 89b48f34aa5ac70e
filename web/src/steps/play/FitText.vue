<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'

/** A text that is drawn narrower where it would be wider than it may; its height stays. */
const props = defineProps<{ text: string; most: number }>()

const line = ref<HTMLElement>()
const share = ref(1)
const width = ref<number>()

async function fit() {
  await nextTick()
  const natural = line.value?.offsetWidth ?? 0
  share.value = natural > props.most ? props.most / natural : 1
  width.value = natural * share.value
}
watch(() => [props.text, props.most], fit)
onMounted(fit)
// Another font is as wide as another font.
void document.fonts?.ready.then(fit)
</script>

<template>
  <span class="fit" :style="{ width: width === undefined ? undefined : `${width}px` }">
    <span ref="line" class="line" :style="{ transform: `scaleX(${share})` }">{{ text }}</span>
  </span>
</template>

<style scoped>
.fit {
  display: inline-block;
}
.line {
  display: inline-block;
  transform-origin: left;
}
</style>
