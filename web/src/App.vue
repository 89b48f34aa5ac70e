<script setup lang="ts">
import { onMounted, ref } from 'vue'
import HandsDialog from './hands/HandsDialog.vue'
import KeysDialog from './shell/KeysDialog.vue'
import StepRail from './shell/StepRail.vue'
import { toggleNight } from './theme/night'
import { useKeys } from './tune/keys'
import { useTune } from './tune/tune'

const tune = useTune()
const ready = ref(false)
const failed = ref('')
const keysOpen = ref(false)
const handsOpen = ref(false)

onMounted(async () => {
  try {
    await tune.start()
    ready.value = true
  } catch (error) {
    failed.value = error instanceof Error ? error.message : String(error)
  }
})

useKeys([
  { key: '?', says: 'all keys', run: () => (keysOpen.value = true) },
  { key: 'g', says: 'neck and hands: tuning, span, left-handed', run: () => (handsOpen.value = true) },
  { key: 'n', says: 'night or day', run: toggleNight },
])
</script>

<template>
  <div class="page">
    <StepRail @keys="keysOpen = true" @hands="handsOpen = true" />
    <main>
      <p v-if="failed" class="failed" role="alert">{{ failed }}</p>
      <RouterView v-else-if="ready" />
    </main>
    <KeysDialog v-model:visible="keysOpen" />
    <HandsDialog v-model:visible="handsOpen" />
  </div>
</template>

<style scoped>
.page {
  display: flex;
  min-height: 100vh;
}
main {
  flex: 1;
  min-width: 0;
  max-width: 1600px;
  padding: 12px 24px 16px;
}
.failed {
  padding: 3rem 0;
  font-size: 1.2rem;
}
</style>
