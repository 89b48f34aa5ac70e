<script setup lang="ts">
import { computed } from 'vue'
import type { TakeVerdict } from '../../api/client'
import { signs } from '../../controls/spelling'

/** What was said of the bars that were the player's, in one line. */
const props = defineProps<{ from: number; to: number; verdict: TakeVerdict }>()
const shown: (typeof props.verdict.rows)[number]['id'][] = ['landings', 'strong', 'lean']
const rows = computed(() => props.verdict.rows.filter((row) => shown.includes(row.id)))
const finding = computed(() => props.verdict.first[0] ?? props.verdict.good[0])
</script>

<template>
  <span class="traded">
    <b>your bars {{ from }}–{{ to }}:</b>
    <template v-if="verdict.heard.length">
      <span v-for="row in rows" :key="row.id">{{ row.name }} {{ row.text }}</span>
    </template>
    <span v-if="finding" class="cut" :title="signs(finding.text)">{{ signs(finding.text) }}</span>
  </span>
</template>

<style scoped>
.traded {
  display: inline-flex;
  gap: 0.8rem;
  min-width: 0;
  flex-wrap: wrap;
  color: var(--ink);
}
</style>
