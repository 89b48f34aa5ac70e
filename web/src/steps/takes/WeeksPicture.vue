<script setup lang="ts">
import { computed } from 'vue'
import type { TakeEntry } from '../../api/client'
import { weekDots } from './weeks'

/** How the takes of the tune went over the weeks: what was landed, and how steady they were. */
const props = defineProps<{ takes: TakeEntry[]; chosen?: number }>()
const emit = defineEmits<{ choose: [id: number] }>()
const size = { width: 300, height: 84, margin: 14 }
const readable = computed(() =>
  props.takes.filter((take) => !take.damaged).toSorted((a, b) => a.began.localeCompare(b.began)),
)
const day = (text: string) => new Date(text).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })
const pictures = computed(() => {
  const of = (value: (take: TakeEntry) => number, text: (take: TakeEntry) => string, most?: number) =>
    weekDots(
      readable.value.map((take) => ({ began: take.began, value: value(take), text: text(take) })),
      size,
      most,
    )
  return [
    {
      ...{ name: 'landed', better: 'higher is better' },
      dots: of(
        (take) => (take.landings ? take.landed / take.landings : 0),
        (take) => `${take.landed} of ${take.landings}`,
        1,
      ),
    },
    {
      ...{ name: 'steady within', better: 'lower is better' },
      dots: of(
        (take) => take.spread,
        (take) => `${Math.round(take.spread)} ms`,
      ),
    },
  ]
})
</script>

<template>
  <div class="weeks">
    <figure v-for="picture in pictures" :key="picture.name">
      <figcaption>
        {{ picture.name }} <span class="quiet">{{ picture.better }}</span>
      </figcaption>
      <svg
        :viewBox="`0 0 ${size.width} ${size.height}`"
        role="group"
        :aria-label="`${picture.name}: ${picture.dots.map((dot, n) => `${day(readable[n]!.began)} ${dot.text}`).join(', ')}`"
      >
        <line class="floor" x1="0" :x2="size.width" :y1="size.height - 6" :y2="size.height - 6" />
        <polyline class="line" :points="picture.dots.map((dot) => `${dot.x},${dot.y}`).join(' ')" />
        <circle
          v-for="(dot, n) in picture.dots"
          :key="n"
          class="dot"
          :class="{ chosen: readable[n]?.id === chosen }"
          :cx="dot.x"
          :cy="dot.y"
          r="5"
          role="button"
          tabindex="0"
          :aria-label="`${readable[n]!.name}, ${picture.name}: ${dot.text}`"
          @click="emit('choose', readable[n]!.id)"
          @keydown.enter="emit('choose', readable[n]!.id)"
        >
          <title>{{ day(readable[n]!.began) }}: {{ dot.text }}</title>
        </circle>
        <text
          v-if="picture.dots.length"
          class="last"
          :x="Math.min(picture.dots.at(-1)!.x + 2, size.width - 4)"
          :y="picture.dots.at(-1)!.y > 30 ? picture.dots.at(-1)!.y - 9 : picture.dots.at(-1)!.y + 20"
          text-anchor="end"
        >
          {{ picture.dots.at(-1)!.text }}
        </text>
      </svg>
    </figure>
  </div>
</template>

<style scoped>
.weeks {
  display: flex;
  flex-direction: column;
  gap: 6px;
  flex: 0 1 20rem;
  min-width: min(20rem, 100%);
}
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
}
.floor {
  stroke: var(--line);
}
.line {
  fill: none;
  stroke: var(--now);
  stroke-width: 2;
}
.dot {
  fill: var(--now);
  cursor: pointer;
}
.dot.chosen {
  stroke: var(--ink);
  stroke-width: 2;
}
.last {
  fill: var(--now);
  font-size: 14px;
  font-weight: 700;
}
</style>
