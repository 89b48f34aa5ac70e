<script setup lang="ts">
import { computed } from 'vue'
import type { Deck } from '../../api/client'
import { useTune } from '../../document/tune'
import { usePracticeQuery } from './address'

/** Which drill is asked, and what its cards are drawn from. */
defineProps<{ all: Deck | undefined }>()
const tune = useTune()
const query = usePracticeQuery()
const kinds = computed(() => tune.choices?.drills ?? [])
/** The drill that is played over the band has no cards. */
const inTime = 'one tone in time'
const scopes = [
  { name: 'tune', title: 'this tune' },
  { name: 'all', title: 'all tunes' },
  { name: 'keys', title: 'twelve keys' },
] as const
</script>

<template>
  <aside class="chooser">
    <div class="choices" role="group" aria-label="What the cards are drawn from">
      <button
        v-for="scope in scopes"
        :key="scope.name"
        type="button"
        class="chip"
        :aria-pressed="query.scope.value === scope.name"
        @click="query.set({ scope: scope.name, cards: undefined })"
      >
        {{ scope.title }}
      </button>
    </div>
    <p class="quiet">{{ all?.text }}</p>
    <ul aria-label="The drills">
      <li>
        <button
          type="button"
          class="kind"
          :aria-pressed="!query.kind.value"
          @click="query.set({ kind: undefined, cards: undefined })"
        >
          <b>whatever is due</b>
        </button>
      </li>
      <li>
        <button
          type="button"
          class="kind"
          title="Over the band: one tone at each change, and nothing but given notes between"
          :aria-pressed="query.kind.value === inTime"
          @click="query.set({ kind: inTime, cards: undefined })"
        >
          <b>{{ inTime }}</b>
        </button>
      </li>
      <li v-for="kind in kinds" :key="kind.name">
        <button
          type="button"
          class="kind"
          :title="kind.text"
          :aria-pressed="query.kind.value === kind.name"
          @click="query.set({ kind: kind.name, cards: undefined })"
        >
          <b>{{ kind.name }}</b>
        </button>
      </li>
    </ul>
  </aside>
</template>

<style scoped>
.chooser {
  gap: 0.5rem;
}
.choices {
  margin: 0;
}
ul {
  display: flex;
  flex-direction: column;
  overflow-y: auto;
}
.kind {
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 0.16rem 0.6rem;
  border-radius: 8px;
  cursor: pointer;
}
.kind b {
  font-weight: 500;
}
.kind[aria-pressed='true'] {
  background: var(--now-tint);
}
.kind[aria-pressed='true'] b {
  font-weight: 700;
  color: var(--now);
}
@container main (max-width: 58rem) {
  ul {
    max-height: 8rem;
  }
}
</style>
