<script setup lang="ts">
import { computed, watch } from 'vue'
import type { Block, ChorusView, Lick, LickEvent } from '../../api/client'
import { useTune } from '../../document/tune'
import { barAt } from '../../tab/barlines'
import { useCursor } from '../../tab/cursor'
import { useOwnedWriting } from '../../tab/writing'
import WritePanel from '../../tab/WritePanel.vue'

/** The notes of one block in the tab editor: a lick of its own while it is written. */
const props = defineProps<{
  view: ChorusView
  block: Block
  sounding: number | undefined
  /** Gives what puts notes into the block, also those that are on their way when this is closed. */
  writer: () => (notes: LickEvent[], label: string) => Promise<void>
}>()
defineEmits<{ close: [] }>()
const tune = useTune()

/** The bar line that the block's first bar begins on, in ticks of the chorus, as the writing began. */
const played = tune.read?.played ?? []
const first = barAt(played, props.block.start)
/** What begins before bar 1 begins in a bar of the first one's length. */
const early = Math.min(Math.floor(props.block.start / (played[0]?.ticks ?? 1)), 0)
const bar = early < 0 ? early * (played[0]?.ticks ?? 0) : (played[first]?.tick ?? 0)
const moved = (e: LickEvent, by: number) => ({ ...e, tick: e.tick + by })

function asLick(): Lick {
  const over = (props.view.phrase.chords ?? [])
    .filter(
      (o, n, all) => (all[n + 1]?.tick ?? Infinity) > bar && o.tick < bar + 8 * (played[first]?.ticks ?? 0),
    )
    .map((o) => ({ ...o, tick: Math.max(o.tick - bar, 0) }))
  return {
    name: props.block.name || 'notes',
    about: '',
    tonic: tune.chart?.key.tonic ?? 'C',
    meter: played[first]?.meter ?? props.view.tab.meter,
    tuning: tune.map?.sounding,
    events: (props.block.notes ?? []).map((e) => moved(e, -bar)),
    chords: over.length ? over : [{ tick: 0, chord: props.view.impliedHarmony[0]?.chord ?? 'C7' }],
  }
}
const put = props.writer()
const writing = useOwnedWriting(asLick, (lick, label) =>
  put(
    lick.events.map((e) => moved(e, bar)),
    label,
  ),
)
const cursor = useCursor(writing)
const where = early < 0 ? 'the pickup' : `bar ${first + 1}`
const says = computed(() => `${props.block.name}, from ${where} on`)
// The cursor begins on the first note of the block.
const stop = watch(writing.written, (now) => {
  const begin = now?.lick.events[0]
  if (!begin) return
  cursor.go(begin.tick)
  cursor.goToString(begin.string)
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
  height: var(--panel, 19.33rem);
  overflow-y: auto;
}
.head .chip {
  margin-left: auto;
}
</style>
