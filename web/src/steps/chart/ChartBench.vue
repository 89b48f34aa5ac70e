<script setup lang="ts">
import { useChartQuery } from './address'
import FactsPanel from './FactsPanel.vue'
import FormPanel from './FormPanel.vue'
import FilePanel from './FilePanel.vue'
import type { Selection } from './selection'
import TunePanel from './TunePanel.vue'
import TurnaroundPanel from './TurnaroundPanel.vue'
import VersionsPanel from './VersionsPanel.vue'

/** Beside the sheet: one panel at a time about the chart. That of the bar is given by the sheet. */
defineProps<{ selection: Selection }>()

const panels = [
  { name: 'bar', title: 'Bar' },
  { name: 'form', title: 'Form' },
  { name: 'tune', title: 'Tune' },
  { name: 'turnarounds', title: 'Turnarounds' },
  { name: 'facts', title: 'Facts' },
  { name: 'versions', title: 'Versions' },
  { name: 'file', title: 'File' },
] as const
const query = useChartQuery()
const { panel } = query
</script>

<template>
  <aside class="bench">
    <div v-roving="'.tab'" class="tabs" role="tablist" aria-label="About the chart">
      <button
        v-for="p in panels"
        :key="p.name"
        type="button"
        role="tab"
        class="tab"
        :aria-selected="panel === p.name"
        @click="query.set({ panel: p.name })"
      >
        {{ p.title }}
      </button>
    </div>
    <div class="panel" role="tabpanel" tabindex="0" :aria-label="panels.find((p) => p.name === panel)?.title">
      <slot v-if="panel === 'bar'" />
      <FormPanel v-else-if="panel === 'form'" :selection="selection" />
      <TunePanel v-else-if="panel === 'tune'" />
      <TurnaroundPanel v-else-if="panel === 'turnarounds'" :selection="selection" />
      <FactsPanel v-else-if="panel === 'facts'" />
      <VersionsPanel v-else-if="panel === 'versions'" />
      <FilePanel v-else />
    </div>
  </aside>
</template>

<style scoped>
aside {
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 0.6rem 0.9rem 0.9rem;
}
.tabs {
  display: flex;
  gap: 2px;
  margin-bottom: 0.7rem;
  border-bottom: 1px solid var(--line);
}
.tab {
  border: 0;
  background: none;
  padding: 0.3rem 0.34rem 0.4rem;
  font-size: 0.89rem;
  color: var(--stone);
  border-bottom: 3px solid transparent;
  margin-bottom: -1px;
  cursor: pointer;
}
.tab:hover {
  color: var(--ink);
}
.tab[aria-selected='true'] {
  color: var(--ink);
  font-weight: 650;
  border-bottom-color: var(--now);
}
.panel {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}
@media print {
  aside {
    display: none;
  }
}
</style>
