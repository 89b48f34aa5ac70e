<script setup lang="ts">
import { defineAsyncComponent, onMounted, ref, watch } from 'vue'
import BlockedNotices from './BlockedNotices.vue'
import FaultNotice from './FaultNotice.vue'
import { useLeaving } from './leaving'
import StepHint from './StepHint.vue'
import StepRail from './StepRail.vue'
import TitleTip from './TitleTip.vue'
import { toggleLarge } from '../controls/large'
import { toggleNight } from '../controls/night'
import { useKeys } from '../controls/keys'
import { useTune } from '../document/tune'
import { useRecording } from '../sound/recording'

const tune = useTune()
const recording = useRecording()
const ready = ref(false)
const failed = ref('')
const keysOpen = ref(false)
const handsOpen = ref(false)
const wordsOpen = ref(false)
// The dialogs are loaded when they are first asked for.
const HandsDialog = defineAsyncComponent(() => import('./HandsDialog.vue'))
const WordsDialog = defineAsyncComponent(() => import('./WordsDialog.vue'))
const RecordingBar = defineAsyncComponent(() => import('./RecordingBar.vue'))
const KeysDialog = defineAsyncComponent(() => import('./KeysDialog.vue'))
const handsWanted = ref(false)
const keysWanted = ref(false)
const wordsWanted = ref(false)
watch(handsOpen, () => (handsWanted.value = true))
watch(keysOpen, () => (keysWanted.value = true))
watch(wordsOpen, () => (wordsWanted.value = true))

useLeaving()
async function start() {
  failed.value = ''
  try {
    await tune.start(Number(/^\/tunes\/(\d+)/.exec(location.pathname)?.[1] ?? 0))
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
  { key: 'F1', says: 'what the words on the screen mean', run: () => (wordsOpen.value = true) },
  { key: 'F4', says: 'everything larger, to be read from further away', run: toggleLarge },
])
</script>

<template>
  <div class="page">
    <StepRail @keys="keysOpen = true" @hands="handsOpen = true" @words="wordsOpen = true" />
    <main>
      <p v-if="failed" class="failed" role="alert">
        {{ failed }} <button type="button" class="chip" @click="start">Try again</button>
      </p>
      <template v-else-if="ready">
        <RecordingBar v-if="recording.recordsNow" />
        <StepHint />
        <BlockedNotices />
        <RouterView />
      </template>
    </main>
    <KeysDialog v-if="keysWanted" v-model:visible="keysOpen" />
    <WordsDialog v-if="wordsWanted" v-model:visible="wordsOpen" />
    <HandsDialog v-if="handsWanted" v-model:visible="handsOpen" />
    <FaultNotice />
    <TitleTip />
  </div>
</template>

<style scoped>
.page {
  display: flex;
  min-height: 100vh;
}
/* Views are laid out by the room they have here, whatever the window and the size of the text. */
main {
  flex: 1;
  min-width: 0;
  padding: 12px 24px 16px;
  container: main / inline-size;
}
@container page (max-width: 60rem) {
  .page {
    flex-direction: column;
  }
  main {
    padding: 8px 16px 16px;
  }
}
@container page (max-width: 28rem) {
  main {
    padding: 8px 10px 12px;
  }
}
.failed {
  padding: 3rem 0;
  font-size: 1.2rem;
}
</style>
