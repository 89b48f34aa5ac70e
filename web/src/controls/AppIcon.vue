<script setup lang="ts">
import copy from 'primeicons/raw-svg/copy.svg?raw'
import database from 'primeicons/raw-svg/database.svg?raw'
import moon from 'primeicons/raw-svg/moon.svg?raw'
import play from 'primeicons/raw-svg/play.svg?raw'
import sliders from 'primeicons/raw-svg/sliders-h.svg?raw'
import spinner from 'primeicons/raw-svg/spinner.svg?raw'
import stop from 'primeicons/raw-svg/stop.svg?raw'
import down from 'primeicons/raw-svg/chevron-down.svg?raw'
import sun from 'primeicons/raw-svg/sun.svg?raw'
import times from 'primeicons/raw-svg/times.svg?raw'
import trash from 'primeicons/raw-svg/trash.svg?raw'
import undo from 'primeicons/raw-svg/undo.svg?raw'
import volume from 'primeicons/raw-svg/volume-up.svg?raw'

/** One of the few icons that are used, as large as the text beside it. */
const pictures = { copy, database, down, moon, play, sliders, spinner, stop, sun, times, trash, undo, volume }
defineProps<{ name: keyof typeof pictures }>()
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- the pictures ship with the page -->
  <i class="app-icon" :class="{ turning: name === 'spinner' }" aria-hidden="true" v-html="pictures[name]" />
</template>

<style scoped>
.app-icon {
  display: inline-flex;
  width: 1.3em;
  height: 1.3em;
  vertical-align: -0.25em;
}
.app-icon :deep(svg) {
  width: 100%;
  height: 100%;
  fill: currentColor;
}
.turning {
  animation: turn 1.6s linear infinite;
}
@keyframes turn {
  to {
    transform: rotate(1turn);
  }
}
</style>
