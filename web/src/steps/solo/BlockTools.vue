<script setup lang="ts">
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import type { Block } from '../../api/client'
import type { BlockWork } from './blocks'

/** What can be done with the block that is chosen, or put where none is. */
const props = defineProps<{ blocks: BlockWork; bar: number }>()
const nameOf = (b: Block) => (b.kind === 'lick' ? b.name : signs(b.name || b.kind))
const { block, lickOptions, layable } = props.blocks
</script>

<template>
  <div class="tools" role="group" aria-label="The block">
    <template v-if="block">
      <strong class="name cut" :title="nameOf(block)">{{ nameOf(block) }}</strong>
      <button type="button" class="chip" :aria-pressed="Boolean(block.locked)" @click="blocks.toggleLock">
        lock
      </button>
      <template v-if="block.kind !== 'rest'">
        <button type="button" class="chip" :aria-pressed="Boolean(block.muted)" @click="blocks.toggleMute">
          mute
        </button>
        <button type="button" class="chip" @click="blocks.silence">rest</button>
      </template>
      <button type="button" class="chip" @click="blocks.roll">re-roll</button>
      <button type="button" class="chip" @click="blocks.toggleWriting">write</button>
    </template>
    <span v-else class="quiet">Choose a block, a target or a note.</span>
    <PillSelect
      :label="block && block.kind !== 'rest' ? 'Swap for a lick' : 'Add a lick'"
      :placeholder="block && block.kind !== 'rest' ? 'swap for…' : 'add a lick…'"
      :chosen="undefined"
      :options="lickOptions"
      @choose="blocks.swap"
    />
    <PillSelect
      label="Add a block"
      placeholder="add…"
      :chosen="undefined"
      :options="layable"
      @choose="blocks.addBlock"
    />
    <button type="button" class="chip" @click="blocks.rollBar">re-roll bar {{ bar }}</button>
    <slot />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  align-items: center;
  gap: 6px;
  flex-wrap: wrap;
  min-height: 30px;
  margin-bottom: 2px;
}
.chip {
  padding: 0.1rem 0.65rem;
  font-size: 0.9rem;
}
.name {
  min-width: 9.5rem;
  max-width: 15rem;
}
</style>
