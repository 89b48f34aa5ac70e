<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { computed, ref, watch } from 'vue'
import { hintsOn, showHints } from '../controls/hints'
import { signs } from '../controls/spelling'
import { uses, words } from './words'

/** What the words on the screen mean: first those of the view that is open, then the others. */
const visible = defineModel<boolean>('visible', { required: true })
const search = ref('')
/** All that can be read on the view, and what its parts are called. */
const screen = ref('')
function read() {
  const main = document.querySelector('main')
  const names = [...(main?.querySelectorAll('[aria-label], [title]') ?? [])].map(
    (e) => `${e.getAttribute('aria-label') ?? ''} ${e.getAttribute('title') ?? ''}`,
  )
  screen.value = [main?.innerText ?? '', ...names].join(' · ')
}
watch(visible, (open) => open && read(), { immediate: true })

const groups = computed(() => {
  const asked = search.value.trim().toLowerCase()
  const found = words.filter(
    (w) => !asked || `${w.word} ${(w.also ?? []).join(' ')}`.toLowerCase().includes(asked),
  )
  const here = found.filter((w) => uses(screen.value, w))
  return [
    { title: 'On this screen', all: here },
    { title: here.length ? 'Elsewhere' : 'All words', all: found.filter((w) => !here.includes(w)) },
  ].filter((group) => group.all.length)
})
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    dismissable-mask
    header="What the words mean"
    :style="{ width: 'min(44rem, calc(100vw - 1.5rem))' }"
  >
    <p class="choices">
      <button type="button" class="chip" :aria-pressed="hintsOn" @click="showHints(!hintsOn)">
        hints for each step
      </button>
    </p>
    <input v-model="search" type="search" placeholder="Find a word" aria-label="Find a word" />
    <template v-for="group in groups" :key="group.title">
      <h2>{{ group.title }}</h2>
      <dl>
        <div v-for="{ word, says } in group.all" :key="word">
          <dt>{{ signs(word) }}</dt>
          <dd>{{ says }}</dd>
        </div>
      </dl>
    </template>
    <p v-if="!groups.length" class="quiet">No word like that.</p>
  </Dialog>
</template>

<style scoped>
input {
  width: 100%;
  font: inherit;
  padding: 0.35rem 0.9rem;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--paper);
  color: var(--ink);
}
h2 {
  margin: 0.9rem 0 0.3rem;
  color: var(--stone);
}
dl {
  margin: 0;
}
dl > div {
  display: grid;
  grid-template-columns: minmax(7rem, 1fr) 4fr;
  gap: 0 1rem;
  padding: 0.25rem 0;
}
dt {
  font-weight: 650;
}
dd {
  margin: 0;
}
</style>
