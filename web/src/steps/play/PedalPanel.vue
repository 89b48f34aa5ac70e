<script setup lang="ts">
import PillSelect from '../../controls/PillSelect.vue'
import { actions, pedals, type Action } from './pedals'

/** What the keys do that a page-turner pedal sends. */
defineProps<{ does: (key: string) => Action }>()
defineEmits<{ assign: [key: string, action: Action] }>()
const options = Object.entries(actions).map(([value, text]) => ({ value: value as Action, text }))
</script>

<template>
  <div>
    <p class="quiet intro">
      A page-turner pedal sends keys. Press it to see what it does here; choose what each key is to do.
    </p>
    <ul>
      <li v-for="pedal in pedals" :key="pedal.key">
        <kbd>{{ pedal.shown }}</kbd>
        <PillSelect
          :label="`What ${pedal.shown} does`"
          :chosen="does(pedal.key)"
          :options="options"
          @choose="(action) => $emit('assign', pedal.key, action)"
        />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.intro {
  margin-bottom: 0.6rem;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1.6rem;
}
li {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}
kbd {
  min-width: 4rem;
  font: inherit;
  font-weight: 650;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 0.1rem 0.5rem;
  text-align: center;
  background: var(--paper);
}
</style>
