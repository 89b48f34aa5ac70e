<script setup lang="ts">
import { ref } from 'vue'
import type { Revision } from '../api/client'
import { signs } from './spelling'

/** The versions of something, newest first: each can be named, and brought back. */
defineProps<{ versions: Revision[] }>()
const emit = defineEmits<{ restore: [version: number]; label: [version: number, text: string] }>()
const naming = ref<number>()
const text = ref('')
const when = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})
function begin(version: number, label = '') {
  naming.value = version
  text.value = label
}
function name() {
  if (naming.value !== undefined) emit('label', naming.value, text.value)
  naming.value = undefined
}
</script>

<template>
  <ol>
    <li v-for="v in versions" :key="v.version">
      <div class="what">
        <strong v-if="v.label">{{ v.label }}</strong>
        <span class="quiet"> {{ when.format(new Date(v.saved)) }}</span>
        <p v-if="v.damaged" class="damaged">cannot be read: {{ v.damaged }}</p>
        <p v-else>{{ signs(v.text) }}</p>
        <form v-if="naming === v.version" @submit.prevent="name">
          <input
            v-model="text"
            maxlength="60"
            :aria-label="`Name of version ${v.version}`"
            placeholder="a name"
            @keydown.esc="naming = undefined"
          />
          <button type="submit" class="chip">Name it</button>
        </form>
      </div>
      <button
        v-if="naming !== v.version"
        type="button"
        class="chip"
        :aria-label="`Name version ${v.version}`"
        @click="begin(v.version, v.label)"
      >
        {{ v.label ? 'Rename' : 'Name' }}
      </button>
      <span v-if="v.current" class="quiet">now</span>
      <button
        v-else-if="!v.damaged"
        type="button"
        class="chip"
        :aria-label="`Restore version ${v.version}`"
        @click="$emit('restore', v.version)"
      >
        Restore
      </button>
    </li>
  </ol>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  padding: 0.4rem 0;
  border-top: 1px solid var(--line);
}
.what {
  flex: 1;
  min-width: 0;
}
p {
  overflow-wrap: anywhere;
}
.damaged {
  color: var(--next);
}
form {
  display: flex;
  gap: 0.4rem;
  margin-top: 0.2rem;
}
input {
  flex: 1;
}
.chip {
  flex: none;
}
</style>
