<script setup lang="ts">
import { defineAsyncComponent, onMounted, ref, watch } from 'vue'
import FaultNotice from './FaultNotice.vue'
import { useLeaving } from './leaving'
import StepRail from './StepRail.vue'
import { toggleNight } from '../controls/night'
import { useKeys } from '../controls/keys'
import { useTune } from '../document/tune'

const tune = useTune()
const ready = ref(false)
const failed = ref('')
const keysOpen = ref(false)
const handsOpen = ref(false)
// The dialogs are loaded when they are first asked for.
const HandsDialog = defineAsyncComponent(() => import('./HandsDialog.vue'))
const KeysDialog = defineAsyncComponent(() => import('./KeysDialog.vue'))
const handsWanted = ref(false)
const keysWanted = ref(false)
watch(handsOpen, () => (handsWanted.value = true))
watch(keysOpen, () => (keysWanted.value = true))

useLeaving()
async function start() {
  failed.value = ''
  try {
    await tune.start()
    ready.value = true
  } catch (error) {
    failed.value = error instanceof Error ? error.message : String(error)
  }
}
onMounted(start)

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
      <p v-if="failed" class="failed" role="alert">
        {{ failed }} <button type="button" class="chip" @click="start">Try again</button>
      </p>
      <RouterView v-else-if="ready" />
    </main>
    <KeysDialog v-if="keysWanted" v-model:visible="keysOpen" />
    <HandsDialog v-if="handsWanted" v-model:visible="handsOpen" />
    <FaultNotice />
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
@media (max-width: 900px) {
  main {
    padding: 8px 16px 76px;
  }
}
.failed {
  padding: 3rem 0;
  font-size: 1.2rem;
}
</style>
