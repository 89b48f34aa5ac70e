<script setup lang="ts">
import AppIcon from '../controls/AppIcon.vue'
import { computed } from 'vue'
import { following } from '../address/following'
import PillSelect from '../controls/PillSelect.vue'
import { usePlayer } from '../sound/player'

/** Play, loop and speed: in the same place in every step, and meaning the same. */
const player = usePlayer()

/** The speeds it can be heard at, and the one it has come to by keys. */
const speeds = computed(() => {
  const all = [25, 40, 50, 60, 70, 80, 90, 100, 110, 120, Math.round(player.speed)]
  return [...new Set(all)]
    .sort((a, b) => a - b)
    .map((percent) => ({ value: String(percent), text: `${percent} %` }))
})
const looped = computed(() => {
  if (!player.bars) return ''
  const { from, to } = player.bars
  return from === to ? ` ${from}` : ` ${from}–${to}`
})
</script>

<template>
  <span class="sound">
    <button
      v-if="player.tuneSounds && !following"
      type="button"
      class="chip follow"
      title="Show what sounds again (Home)"
      @click="following = true"
    >
      follow
    </button>
    <button
      type="button"
      class="chip"
      :aria-pressed="player.loop"
      :title="`Loop ${looped ? `bars${looped}` : 'what is played'} (z); drag over the form to choose bars`"
      @click="player.setLoop(!player.loop)"
    >
      loop{{ looped }}
    </button>
    <button
      v-if="looped"
      type="button"
      class="clear"
      aria-label="No looped bars"
      title="No looped bars"
      @click="player.loopBars()"
    >
      ×
    </button>
    <PillSelect
      label="Speed"
      :chosen="String(Math.round(player.speed))"
      :options="speeds"
      @choose="(one) => player.setSpeed(Number(one))"
    />
    <button
      type="button"
      class="play"
      :aria-label="player.silent ? 'Play' : 'Stop'"
      :title="player.silent ? 'Play (space)' : 'Stop (space)'"
      @click="player.toggle()"
    >
      <AppIcon :name="player.silent ? 'play' : player.state === 'loading' ? 'spinner' : 'stop'" />
    </button>
  </span>
</template>

<style scoped>
.sound {
  flex: 0 1 auto;
  flex-wrap: wrap;
  display: flex;
  align-items: center;
  gap: 6px;
}
.chip {
  padding: 0.22rem 0.65rem;
}
.follow {
  border-color: var(--next-fill);
  color: var(--next);
}
.clear {
  width: 24px;
  height: 30px;
  margin-left: -6px;
  border: 0;
  background: none;
  padding: 0;
  font-size: 1.2rem;
  color: var(--stone);
  cursor: pointer;
}
.play {
  flex: none;
  width: 44px;
  height: 36px;
  border: 0;
  border-radius: 999px;
  background: var(--now);
  color: var(--on-fill);
  cursor: pointer;
}
@container main (max-width: 38rem) {
  .chip,
  :deep(.pill) {
    min-height: 44px;
    align-items: center;
  }
  :deep(.p-select-label) {
    align-self: center;
  }
  .play {
    width: 56px;
    height: 44px;
  }
}
</style>
