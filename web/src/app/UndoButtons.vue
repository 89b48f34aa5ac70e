<script setup lang="ts">
import AppIcon from '../controls/AppIcon.vue'
import { computed } from 'vue'
import { lastStep, useUndo } from '../document/undo'
import { signs } from '../controls/spelling'
import { useTune } from '../document/tune'

/** One undo and one redo for all that is being edited; each says what it would do. */
const tune = useTune()
const { label, redoLabel, undo, redo } = useUndo()
const says = computed(() => (label.value ? `Undo: ${signs(label.value)}` : 'Undo'))
const saysAgain = computed(() => (redoLabel.value ? `Redo: ${signs(redoLabel.value)}` : 'Redo'))
async function step(which: typeof undo) {
  const refused = await which()
  if (refused) tune.tell(refused)
}
</script>

<template>
  <button
    type="button"
    class="step"
    :aria-label="says"
    :title="`${says} (Ctrl z)`"
    :disabled="!label"
    @click="step(undo)"
  >
    <AppIcon name="undo" />
  </button>
  <button
    type="button"
    class="step"
    :aria-label="saysAgain"
    :title="`${saysAgain} (Ctrl ⇧ z)`"
    :disabled="!redoLabel"
    @click="step(redo)"
  >
    <AppIcon name="undo" class="mirrored" />
  </button>
  <span class="last" role="status">{{ signs(lastStep) }}</span>
</template>

<style scoped>
.step {
  flex: none;
  width: 26px;
  height: 30px;
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
}
.last {
  position: fixed;
  z-index: 15;
  left: 50%;
  bottom: 16px;
  transform: translateX(-50%);
  max-width: min(40rem, 90vw);
  padding: 0.4rem 0.9rem;
  border-radius: 10px;
  background: var(--now-tint);
  /* It is in nobody's way. */
  pointer-events: none;
}
.last:empty {
  display: none;
}
.step:disabled {
  color: var(--line);
  cursor: default;
}
.mirrored {
  transform: scaleX(-1);
}
</style>
