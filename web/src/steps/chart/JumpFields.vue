<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import PillSelect from '../../controls/PillSelect.vue'
import { useTune, type ChartEdit } from '../../document/tune'

/** A jump at the end of a bar, and where it leads. */
const props = defineProps<{ bar: number }>()
const emit = defineEmits<{ edit: [change: ChartEdit] }>()
const tune = useTune()

const bars = computed(() => tune.read?.bars ?? [])
const numberOf = (has: (bar: (typeof bars.value)[number]) => unknown) => bars.value.findIndex(has) + 1
/** The jump that stands, with the bars of its signs; 0 for none. */
const stands = computed(() => ({
  bar: numberOf((b) => b.jump),
  jump: bars.value.find((b) => b.jump)?.jump ?? '',
  segno: numberOf((b) => b.segno),
  fine: numberOf((b) => b.fine),
  toCoda: numberOf((b) => b.toCoda),
  coda: numberOf((b) => b.coda),
}))
const draft = ref({ ...stands.value })
watch(stands, (now) => (draft.value = { ...now }), { immediate: true })
const chosen = computed(() => tune.choices?.jumps.find((j) => j.name === draft.value.jump))
const names = computed(() => [
  { value: '', text: 'none' },
  ...(tune.choices?.jumps ?? []).map((j) => ({ value: j.name, text: j.name })),
])
const numbers = computed(() => bars.value.map((_, n) => ({ value: `${n + 1}`, text: `bar ${n + 1}` })))

function choose(jump: string) {
  if (!jump) return emit('edit', { jump: { jump: '' } })
  const last = bars.value.length
  const { segno, fine, toCoda, coda } = draft.value
  draft.value = {
    jump,
    bar: draft.value.bar || props.bar,
    ...{ segno: segno || 1, fine: fine || props.bar, toCoda: toCoda || 1, coda: coda || last },
  }
}
const fields = computed(() => {
  const jump = chosen.value
  if (!jump) return []
  return [
    { name: 'bar', label: 'At the end of' },
    ...(jump.segno ? [{ name: 'segno', label: 'Back to the segno at' }] : []),
    ...(jump.fine ? [{ name: 'fine', label: 'The end is after' }] : []),
    ...(jump.coda
      ? [
          { name: 'toCoda', label: 'To the coda after' },
          { name: 'coda', label: 'The coda begins at' },
        ]
      : []),
  ] as { name: 'bar' | 'segno' | 'fine' | 'toCoda' | 'coda'; label: string }[]
})
function put() {
  const used = Object.fromEntries(fields.value.map((f) => [f.name, draft.value[f.name]]))
  emit('edit', { jump: { jump: draft.value.jump, ...used } })
}
</script>

<template>
  <div class="jump">
    <span class="quiet">Jump</span>
    <PillSelect label="Jump" :chosen="draft.jump" :options="names" @choose="choose" />
    <template v-for="f in fields" :key="f.name">
      <span class="quiet">{{ f.label }}</span>
      <PillSelect
        :label="f.label"
        :chosen="`${draft[f.name]}`"
        :options="numbers"
        @choose="(value) => (draft[f.name] = Number(value))"
      />
    </template>
    <template v-if="chosen">
      <span />
      <span><button type="button" class="chip" @click="put">Put the signs</button></span>
    </template>
  </div>
</template>

<style scoped>
.jump {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 0.8rem;
  align-items: center;
  justify-items: start;
}
@container main (max-width: 22rem) {
  :deep(.p-select-label) {
    padding-inline: 0.3rem;
    white-space: normal;
    overflow: visible;
  }
}
</style>
