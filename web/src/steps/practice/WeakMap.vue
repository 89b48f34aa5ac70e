<script setup lang="ts">
import { computed } from 'vue'
import type { Pictures } from '../../api/client'
import { signs } from '../../controls/spelling'

/** How well each key is known in each position: the darker the better, and a figure where it is weak. */
const props = defineProps<{ spots: Pictures['weakness'] }>()
const emit = defineEmits<{ pick: [spot: Pictures['weakness'][number]] }>()

/** Below this share a figure says how it stands. */
const weak = 0.75
const circle = ['C', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'Gb', 'F#', 'B', 'E', 'A', 'D', 'G']
const keys = computed(() => {
  const known = [...new Set(props.spots.map((s) => s.key))]
  return known.sort((a, b) => circle.indexOf(a) - circle.indexOf(b))
})
const positions = computed(() => [...new Set(props.spots.map((s) => s.position))].sort())
const at = (key: string, position: string) =>
  props.spots.find((s) => s.key === key && s.position === position)
</script>

<template>
  <div v-if="spots.length" class="scroll">
    <table class="weak">
      <tbody>
        <tr v-for="position in positions" :key="position">
          <th scope="row">{{ position }}</th>
          <td v-for="key in keys" :key="key">
            <button
              v-if="at(key, position)"
              type="button"
              class="spot"
              :class="{ weak: at(key, position)!.share < weak }"
              :style="{ '--share': at(key, position)!.share }"
              :title="signs(at(key, position)!.text)"
              :aria-label="signs(at(key, position)!.text)"
              @click="emit('pick', at(key, position)!)"
            >
              {{ at(key, position)!.share < weak ? Math.round(at(key, position)!.share * 100) : '' }}
            </button>
            <span v-else class="spot none" aria-hidden="true" />
          </td>
        </tr>
        <tr>
          <td />
          <th v-for="key in keys" :key="key" scope="col">{{ signs(key) }}</th>
        </tr>
      </tbody>
    </table>
  </div>
  <p v-else class="quiet">Answer some cards, and the weak spots show here.</p>
</template>

<style scoped>
.weak {
  width: 100%;
  table-layout: fixed;
  border-spacing: 4px;
}
th {
  font-size: 0.87rem;
  font-weight: 600;
  color: var(--stone);
}
.spot {
  display: block;
  width: 100%;
  height: 1.6rem;
  min-width: 24px;
  border: 0;
  border-radius: 6px;
  font-size: 0.83rem;
  font-weight: 700;
  color: var(--ink);
  cursor: pointer;
  background: color-mix(in srgb, var(--now) calc(var(--share) * var(--share) * 85%), var(--now-tint));
}
/* Where a figure stands the ground is pale, so that it can be read by night too. */
.spot.weak {
  background: var(--now-tint);
  box-shadow: inset 0 0 0 1.5px var(--now);
}
.spot.none {
  background: var(--shade);
  opacity: 0.5;
}
@container main (max-width: 24rem) {
  .weak {
    border-spacing: 1px;
  }
}
.scroll {
  overflow-x: auto;
}
@media (pointer: coarse) {
  .weak {
    min-width: 24rem;
  }
  .spot {
    min-width: 44px;
    height: 44px;
  }
}
</style>
