<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { computed } from 'vue'
import { boundKeys } from '../controls/keys'

const visible = defineModel<boolean>('visible', { required: true })
const keys = computed(() => (visible.value ? boundKeys() : []))
</script>

<template>
  <Dialog v-model:visible="visible" modal dismissable-mask header="Keys" :style="{ width: '36rem' }">
    <dl>
      <div v-for="binding in keys" :key="binding.key">
        <dt>
          <kbd>{{ binding.shown ?? binding.key }}</kbd>
        </dt>
        <dd>{{ binding.says }}</dd>
      </div>
      <div>
        <dt><kbd>Tab</kbd></dt>
        <dd>to the notes of the neck; arrows move among them, Enter picks one</dd>
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
  columns: 2;
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
kbd {
  font: inherit;
  font-weight: 650;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 0.05rem 0.5rem;
  background: var(--paper);
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
