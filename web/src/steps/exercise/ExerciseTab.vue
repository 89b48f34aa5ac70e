<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { Tab } from '../../api/client'
import { signs } from '../../controls/spelling'
import TabView from '../../tab/TabView.vue'
import { rowsOf } from './rows'

/** An exercise as tab, row below row; the row that sounds is kept in view. */
const props = defineProps<{ tab: Tab; strings: string[]; sounding: number | undefined }>()
const picked = ref<number>()
watch(
  () => props.tab,
  () => (picked.value = undefined),
)
const rows = computed(() => rowsOf(props.tab))
const present = computed(() => {
  const at = props.sounding ?? -1
  return rows.value.findIndex((row) => at >= row.first && at < row.first + row.line.events.length)
})
const list = useTemplateRef<HTMLElement>('list')
watch(present, async (row) => {
  if (row < 0) return
  await nextTick()
  list.value?.children[row]?.scrollIntoView({ block: 'nearest' })
})
const why = computed(() => props.tab.events[props.sounding ?? picked.value ?? -1])
const says = computed(() =>
  signs(why.value ? `${why.value.note} over ${why.value.chord}: ${why.value.why}` : ''),
)
</script>

<template>
  <div>
    <div ref="list" class="rows">
      <TabView
        v-for="row in rows"
        :key="row.first"
        class="row"
        :label="`Bars ${row.bar} and on as tab`"
        dense
        :line="row.line"
        :strings="strings"
        :sounding="sounding === undefined ? undefined : sounding - row.first"
        :chosen="picked === undefined ? undefined : picked - row.first"
        @pick="(index) => (picked = row.first + index)"
      />
    </div>
    <p class="why cut" :title="says">{{ says }}</p>
  </div>
</template>

<style scoped>
.rows {
  overflow-y: auto;
  max-height: var(--panel-most, var(--tab-height, 19.33rem));
}
.row + .row {
  margin-top: 8px;
}
.why {
  min-height: 1.3em;
  margin: 2px 0;
}
</style>
