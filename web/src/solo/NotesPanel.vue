<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Block, ChorusView, KeptLick, Lick, LickEvent } from '../api/client'
import { useCursor } from '../licks/cursor'
import { useWriting } from '../licks/writing'
import WritePanel from '../licks/WritePanel.vue'
import { useTune } from '../tune/tune'

/** The notes of one block in the tab editor: a lick of its own while it is written. */
const props = defineProps<{ view: ChorusView; block: Block; sounding: number | undefined }>()
const emit = defineEmits<{ write: [notes: LickEvent[]]; close: [] }>()
const tune = useTune()

/** The bar line that the block's first bar begins on, in ticks of the chorus. */
const bar = Math.floor(props.block.start / props.view.tab.barTicks) * props.view.tab.barTicks
const moved = (e: LickEvent, by: number) => ({ ...e, tick: e.tick + by })

function asLick(): KeptLick {
  const over = (props.view.phrase.over ?? [])
    .filter((o, n, all) => (all[n + 1]?.tick ?? Infinity) > bar && o.tick < bar + 8 * props.view.tab.barTicks)
    .map((o) => ({ ...o, tick: Math.max(o.tick - bar, 0) }))
  const lick: Lick = {
    name: props.block.name || 'notes',
    about: '',
    tonic: tune.chart?.key.tonic ?? 'C',
    meter: props.view.tab.meter,
    tuning: tune.hands?.instrument?.tuning,
    events: (props.block.notes ?? []).map((e) => moved(e, -bar)),
    over: over.length ? over : [{ tick: 0, chord: props.view.dropped[0]?.chord ?? 'C7' }],
  }
  return { id: -1, version: 1, saved: '', lick }
}
const kept = ref(asLick())
const writing = useWriting(
  () => kept.value,
  () => true,
  () => undefined,
  (lick) => {
    emit(
      'write',
      lick.events.map((e) => moved(e, bar)),
    )
    return Promise.resolve({ ...kept.value, lick })
  },
)
const cursor = useCursor(writing)
const first = Math.floor(bar / props.view.tab.barTicks) + 1
const where = first < 1 ? 'the pickup' : `bar ${first}`
const says = computed(() => `${props.block.name}, from ${where} on`)
// The cursor begins on the first note of the block.
const stop = watch(writing.written, (now) => {
  const begin = now?.lick.events[0]
  if (!begin) return
  cursor.go(begin.tick)
  cursor.toString(begin.string)
  stop()
})
</script>

<template>
  <div class="notes">
    <p class="head">
      <strong>{{ says }}</strong>
      <span class="quiet">beats count from {{ where }}; every note goes into the chorus at once</span>
      <button type="button" class="chip" @click="$emit('close')">Done</button>
    </p>
    <WritePanel :writing="writing" :cursor="cursor" :sounding="sounding" plain />
  </div>
</template>

<style scoped>
.notes {
  height: 290px;
  overflow-y: auto;
}
.head .chip {
  margin-left: auto;
}
</style>
