<script setup lang="ts">
import { fault, faultIsOver } from '../api/fault'

/** What the server or the network could not do, said wherever it was met. */
</script>

<template>
  <p v-if="fault" class="fault" role="alert">
    <span>{{ fault.message }} <span v-if="fault.status === 0">It is tried again.</span></span>
    <button type="button" class="chip" @click="faultIsOver()">Close</button>
  </p>
</template>

<style scoped>
.fault {
  position: fixed;
  z-index: 20;
  left: 50%;
  bottom: 16px;
  transform: translateX(-50%);
  display: flex;
  gap: 0.8rem;
  align-items: center;
  max-width: min(46rem, 90vw);
  padding: 0.6rem 1rem;
  border: 1px solid var(--next-fill);
  border-radius: 10px;
  background: var(--next-tint);
  color: var(--ink);
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
}
</style>
