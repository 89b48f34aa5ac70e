<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { computed, nextTick, ref, shallowRef } from 'vue'
import { chooseKey, keyChoices, keyInForce, usualKeys } from '../controls/keychoices'
import { boundKeys, nameOf, type KeyBinding } from '../controls/keys'

/** Every key that is in force, what it does, and another key for it where that is wished for. */
const visible = defineModel<boolean>('visible', { required: true })
const keys = computed(() => (visible.value ? boundKeys() : []))
const changes = ref(false)
const asking = shallowRef<KeyBinding>()
const refused = ref('')

const shownAs = (binding: KeyBinding) => {
  const key = keyInForce(binding.key)
  if (key === undefined) return 'none'
  return key === binding.key ? (binding.shown ?? key) : key === ' ' ? 'space' : key
}
function ask(binding: KeyBinding) {
  asking.value = binding
  refused.value = ''
  void nextTick(() => document.querySelector<HTMLElement>('.asked')?.focus())
}
/** Takes the next key that is pressed, unless something else on the page has it. */
function take(event: KeyboardEvent) {
  const binding = asking.value
  if (!binding || ['Tab', 'Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) return
  event.preventDefault()
  event.stopPropagation()
  if (event.key === 'Escape') return (asking.value = undefined)
  const key = event.key === 'Backspace' ? '' : nameOf(event)
  const has = key && keys.value.find((b) => b !== binding && keyInForce(b.key)?.toLowerCase() === key)
  if (has)
    return (refused.value = `${key} is the key for: ${has.says}. Take another, or change that one first.`)
  chooseKey(binding.key, key)
  asking.value = undefined
  refused.value = ''
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    dismissable-mask
    header="Keys"
    :style="{ width: 'min(40rem, calc(100vw - 1.5rem))' }"
  >
    <p class="choices">
      <button
        type="button"
        class="chip"
        :aria-pressed="keyChoices.charactersOff"
        @click="keyChoices.charactersOff = !keyChoices.charactersOff"
      >
        single characters off
      </button>
      <button type="button" class="chip" :aria-pressed="changes" @click="changes = !changes">
        change keys
      </button>
      <button type="button" class="chip" @click="usualKeys">the usual keys</button>
    </p>
    <p v-if="changes" class="quiet" role="status">
      {{ refused || 'Choose a key below, then press another for it; Backspace leaves it without one.' }}
    </p>
    <dl>
      <div v-for="binding in keys" :key="binding.key">
        <dt>
          <button
            v-if="changes"
            type="button"
            class="key"
            :class="{ asked: asking === binding }"
            :aria-label="`Key for: ${binding.says}`"
            @click="ask(binding)"
            @keydown="asking === binding && take($event)"
          >
            {{ asking === binding ? 'press…' : shownAs(binding) }}
          </button>
          <kbd v-else class="key">{{ shownAs(binding) }}</kbd>
        </dt>
        <dd>{{ binding.says }}</dd>
      </div>
      <div>
        <dt><kbd class="key">Tab</kbd></dt>
        <dd>to the notes of the neck or a tab; arrows move among them, Enter picks one</dd>
      </div>
    </dl>
    <p class="care">
      Take care of yourself: warm up before wide stretches, stop at any pain, rest at least every 25 minutes,
      and keep headphones low. If something keeps hurting, ask a professional.
      <a href="/licences.txt" target="_blank" rel="noopener">Licences</a> of what ships with Undaris.
    </p>
  </Dialog>
</template>

<style scoped>
dl {
  margin: 0;
  columns: 2 16rem;
  column-gap: 2rem;
}
dl > div {
  display: flex;
  gap: 0.8rem;
  padding: 0.25rem 0;
  break-inside: avoid;
}
dt {
  flex: none;
  min-width: 4.2rem;
}
dd {
  margin: 0;
}
.key {
  font: inherit;
  font-weight: 650;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 0.05rem 0.5rem;
  background: var(--paper);
}
.asked {
  border-color: var(--now);
  background: var(--now-tint);
}
.care a {
  color: var(--now);
}
.care {
  margin-top: 1rem;
  padding-top: 0.8rem;
  border-top: 1px solid var(--line);
  color: var(--stone);
}
</style>
