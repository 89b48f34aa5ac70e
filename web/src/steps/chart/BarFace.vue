<script setup lang="ts">
import { computed } from 'vue'
import type { WrittenBar } from '../../api/client'
import { signs } from '../../controls/spelling'

/** What is read in a bar: its chords with their numerals, and those imagined over them. */
const props = defineProps<{
  bar: WrittenBar | undefined
  /** Imagined chords are followed and so drawn full; else they are faint. */
  imagining: boolean
  /** Text that is not read as chords yet, or cannot be. */
  text: string | undefined
}>()

/** How many letters wide chords are beside each other; between two is the room of one. */
const lettersOf = (all: { chord: string; roman?: string }[], romans = false) =>
  Math.max(
    all.reduce(
      (sum, c) => sum + (signs(c.chord) || 'N.C.').length + (romans ? (c.roman ?? '').length : 0) + 1,
      -1,
    ),
    2,
  )
const letters = computed(() => lettersOf(props.bar?.chords ?? []))
const layerLetters = computed(() => lettersOf(props.bar?.imagined ?? [], true))
</script>

<template>
  <span v-if="!bar" class="plus" aria-hidden="true">+</span>
  <template v-else>
    <span
      class="layer"
      :class="{ off: !imagining }"
      :style="{ '--letters': layerLetters }"
      aria-hidden="true"
    >
      <span v-for="(c, n) in bar.imagined" :key="n" :style="{ flex: c.beats }">
        {{ signs(c.chord) }} <small v-if="c.chord">{{ signs(c.roman) }}</small>
      </span>
    </span>
    <span v-if="text" class="chords">
      <span class="chord raw">{{ text }}</span>
    </span>
    <span
      v-else
      class="chords"
      :class="{ many: bar.chords.length > 1, crowd: bar.chords.length > 2, four: bar.chords.length > 3 }"
      :style="{ '--letters': letters }"
    >
      <span v-for="(c, n) in bar.chords" :key="n" class="one" :style="{ flex: c.beats }">
        <span class="chord" :class="{ none: !c.chord }">{{ signs(c.chord) || 'N.C.' }}</span>
        <span class="roman"
          >{{ signs(c.roman) }}<b v-if="c.fretted">{{ signs(c.fretted) }}</b></span
        >
      </span>
    </span>
  </template>
</template>

<style scoped>
.chords,
.layer {
  display: flex;
  min-width: 0;
  /* The size at which so many letters fill the bar: a bold letter is about 0.6 em wide. */
  --fitting: calc((100cqi - 1.6rem) / (var(--letters) * 0.6));
}
/* A long symbol pushes its neighbour rather than running into it. */
.one {
  display: flex;
  flex-direction: column;
  min-width: max-content;
  padding-right: 6px;
}
.chord {
  font-size: max(0.8rem, min(clamp(1.35rem, calc(var(--bar-height) * 0.27), 2rem), var(--fitting)));
  font-weight: 750;
  line-height: 1.15;
  white-space: nowrap;
}
.many .chord {
  font-size: max(0.8rem, min(clamp(1.2rem, calc(var(--bar-height) * 0.2), 1.45rem), var(--fitting)));
  letter-spacing: -0.01em;
}
.crowd .chord {
  font-size: max(0.8rem, min(0.98rem, var(--fitting)));
  letter-spacing: -0.02em;
}
.four .chord {
  font-size: max(0.8rem, min(0.86rem, var(--fitting)));
}
.raw {
  color: var(--stone);
}
.none {
  color: var(--stone);
  font-weight: 500;
  font-size: 1rem;
}
.roman {
  font-size: 0.82rem;
  color: var(--stone);
  white-space: nowrap;
}
/* What the hand plays above the capo. */
.roman b {
  display: block;
  color: var(--ink);
  font-weight: 600;
}
.layer {
  flex: 1;
  align-items: flex-start;
  font-style: italic;
  font-size: max(0.8rem, min(0.95rem, var(--fitting)));
  font-weight: 650;
  color: var(--next);
  white-space: nowrap;
  line-height: 1.2;
}
.layer small {
  font-size: 0.8rem;
  font-weight: 450;
}
.layer.off {
  color: var(--stone);
  font-weight: 400;
}
.plus {
  align-self: flex-start;
  font-size: 1.4rem;
  color: var(--stone);
}
@container bar (max-width: 6.5rem) {
  .layer small {
    display: none;
  }
}
</style>
