<script setup lang="ts">
import { signs } from '../../controls/spelling'
import { usePlayer } from '../../sound/player'
import type { Etudes } from './etude'

/** The etudes that were made: to be heard, and to be kept as solos. */
const props = defineProps<{ etudes: Etudes }>()
const player = usePlayer()
const { made, notice, hearing } = props.etudes
</script>

<template>
  <div class="made">
    <p v-if="notice" role="alert">{{ signs(notice) }}</p>
    <ol aria-label="Etudes">
      <li v-for="(one, n) in made" :key="one.names.join()">
        <p class="names">{{ one.names.join(' · ') }}</p>
        <p v-for="c in one.concessions" :key="c" class="quiet">{{ signs(c) }}</p>
        <span class="choices">
          <button
            type="button"
            class="chip"
            :aria-label="`Hear etude ${n + 1}`"
            @click="props.etudes.hear(n)"
          >
            {{ !player.silent && hearing === n ? 'stop' : 'hear it over the band' }}
          </button>
          <button
            type="button"
            class="chip"
            :aria-label="`Keep etude ${n + 1} as a solo`"
            @click="props.etudes.keep(n)"
          >
            keep as a solo
          </button>
        </span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.made {
  height: var(--tab-height);
  overflow-y: auto;
}
ol {
  padding-left: 1.6rem;
  margin: 0;
}
li {
  margin-bottom: 1rem;
}
.names {
  font-size: 1.1rem;
  margin: 0 0 4px;
}
</style>
