<script setup lang="ts">
import { computed } from 'vue'
import { useTune } from '../document/tune'
import { useView } from '../address/view'
import type { Cursor } from './cursor'

/** Writing without a keyboard: a strip of frets for the string of the cursor, and where to go next. */
const props = defineProps<{ cursor: Cursor }>()
const tune = useTune()
const view = useView()
/** The frets under the hand come first, then the others up the neck. */
const frets = computed(() => {
  const all = Array.from({ length: (tune.choices?.frets.most ?? 0) + 1 }, (_, fret) => fret)
  const here = view.position.value
  const under = here ? all.filter((fret) => fret >= here.low && fret <= here.high) : []
  return { under, others: all.filter((fret) => !under.includes(fret)) }
})
function put(fret: number) {
  props.cursor.put(fret)
  props.cursor.move(1)
}
</script>

<template>
  <div class="pad">
    <span class="go" role="group" aria-label="Where to write">
      <button type="button" class="chip" aria-label="Earlier" @click="cursor.move(-1)">←</button>
      <button type="button" class="chip" aria-label="Later" @click="cursor.move(1)">→</button>
      <button
        type="button"
        class="chip"
        aria-label="The string above"
        @click="cursor.goToString(cursor.string.value - 1)"
      >
        ↑
      </button>
      <button
        type="button"
        class="chip"
        aria-label="The string below"
        @click="cursor.goToString(cursor.string.value + 1)"
      >
        ↓
      </button>
      <button type="button" class="chip" @click="cursor.rest()">rest</button>
      <button type="button" class="chip" aria-label="Take the note away" @click="cursor.back()">⌫</button>
    </span>
    <span class="frets" role="group" :aria-label="`Fret on string ${cursor.string.value}`">
      <button
        v-for="fret in frets.under"
        :key="fret"
        type="button"
        class="chip under"
        :aria-label="`Fret ${fret}`"
        @click="put(fret)"
      >
        {{ fret }}
      </button>
      <button
        v-for="fret in frets.others"
        :key="fret"
        type="button"
        class="chip"
        :aria-label="`Fret ${fret}`"
        @click="put(fret)"
      >
        {{ fret }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.pad {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin-bottom: 6px;
}
.go,
.frets {
  display: flex;
  gap: 4px;
}
.go {
  flex-wrap: wrap;
}
.frets {
  overflow-x: auto;
  padding-bottom: 4px;
}
.frets .chip {
  flex: none;
  font-weight: 650;
}
.under {
  border-color: var(--now);
  color: var(--now);
}
</style>
