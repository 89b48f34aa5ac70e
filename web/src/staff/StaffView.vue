<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import type { StaffBar } from '../api/client'
import { night } from '../controls/night'
import { engrave } from './draw'

/** Staff notation, engraved over the tab that it belongs to. */
const props = defineProps<{
  bars: StaffBar[]
  meter: string
  width: number
  x: (tick: number) => number
  sounding: number | undefined
}>()
const sheet = ref<HTMLDivElement>()
const height = 116

async function draw() {
  if (!sheet.value) return
  const style = getComputedStyle(sheet.value)
  await engrave(sheet.value, {
    ...{
      bars: props.bars,
      meter: props.meter,
      width: props.width,
      height,
      x: props.x,
      sounding: props.sounding,
    },
    color: style.getPropertyValue('--ink').trim(),
    lit: style.getPropertyValue('--next').trim(),
  })
}
onMounted(draw)
watch([() => props.bars, () => props.sounding, () => props.width, night], draw, { flush: 'post' })
</script>

<template>
  <div ref="sheet" class="staff" role="img" aria-label="The lick as staff notation" />
</template>

<style scoped>
.staff {
  height: 7.73rem;
  overflow: hidden;
}
.staff :deep(svg) {
  width: 100%;
  height: 100%;
}
</style>
