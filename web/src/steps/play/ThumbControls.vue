<script setup lang="ts">
import AppIcon from '../../controls/AppIcon.vue'
import { useBand } from '../../document/band'
import { usePlayer } from '../../sound/player'

/** On a tablet and a phone: what a hand reaches for between two choruses, large and under the thumb. */
const band = useBand()
const player = usePlayer()
</script>

<template>
  <div class="thumb">
    <button type="button" class="primary big" @click="player.toggle()">
      <AppIcon :name="player.silent ? 'play' : 'stop'" /> {{ player.silent ? 'play' : 'stop' }}
    </button>
    <button
      type="button"
      class="chip"
      :aria-pressed="!band.isSilent('chords')"
      @click="band.toggleSilent('chords')"
    >
      chords
    </button>
    <button type="button" class="chip" :aria-pressed="player.loop" @click="player.setLoop(!player.loop)">
      loop
    </button>
    <button type="button" class="chip" aria-label="Slower" @click="player.faster(-2)">−</button>
    <button type="button" class="chip" aria-label="Faster" @click="player.faster(2)">+</button>
  </div>
</template>

<style scoped>
.thumb {
  display: none;
}
@container main (max-width: 58rem) {
  .thumb {
    display: grid;
    grid-template-columns: 1.6fr 1fr 0.8fr 0.8fr;
    gap: 8px;
    padding: 8px 0;
    background: var(--paper);
  }
  .big {
    grid-column: 1 / -1;
    min-height: 60px;
    font-size: 1.4rem;
  }
  .chip {
    min-height: 44px;
    font-size: 1.05rem;
  }
}
/* Where there is height for it, it stays under the thumb. */
@media (pointer: coarse) and (min-height: 680px) {
  .thumb {
    position: sticky;
    bottom: 58px;
    z-index: 2;
  }
}
</style>
