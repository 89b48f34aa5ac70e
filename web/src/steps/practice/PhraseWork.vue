<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { useRoute } from 'vue-router'
import { useAnswer } from '../../api/ask'
import { answer, client, type KeptLick } from '../../api/client'
import { signs } from '../../controls/spelling'
import { minutesAhead } from '../../document/clock'

/** A phrase of one's own within today's limit: written in Licks, and looked at here. */
const note = defineModel<string>('note', { default: '' })
const route = useRoute()
const { answer: task } = useAnswer(
  () => ({ offset: minutesAhead() }),
  (query, signal) => answer(client.GET('/api/practice/phrase', { params: { query }, signal })),
)
const lick = shallowRef<KeptLick>()
const says = ref('')
const kept = ref(false)
const problem = ref('')
const writing = computed(() => ({
  ...{ name: 'licks', params: { id: route.params.id } },
  query: { 'licks.fresh': 'yes', 'licks.panel': 'write' },
}))
const judging = computed(() => ({
  ...{ name: 'licks', params: { id: route.params.id } },
  query: { 'licks.lick': lick.value?.id, 'licks.panel': 'verdict' },
}))

/** Looks at the lick that was kept last. */
async function look() {
  try {
    problem.value = ''
    const all = (await answer(client.GET('/api/licks'))).filter((one) => !one.damaged)
    lick.value = all.at(-1)
    if (!lick.value || !task.value) return
    const body = { lick: lick.value.lick, task: task.value.name }
    const got = await answer(client.POST('/api/compute/practice/phrase', { body }))
    kept.value = got.kept
    says.value = got.text
    if (got.kept) note.value = `${lick.value.lick.name}: ${task.value.text}`
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
</script>

<template>
  <div class="work">
    <h2>A phrase of your own</h2>
    <p v-if="task" class="limit">{{ signs(task.text) }}</p>
    <p class="quiet">
      Four bars, written in the tab editor, heard over the band, kept as a lick.
      <template v-if="task?.written">You have written {{ task.written }} so far.</template>
    </p>
    <div class="acts">
      <RouterLink class="primary" :to="writing">Write it in Licks</RouterLink>
      <button type="button" class="chip" @click="look">look at what I kept last</button>
    </div>
    <p v-if="problem" class="warn" role="alert">{{ problem }}</p>
    <p v-if="lick && says" class="says" role="status">
      <b>{{ lick.lick.name }}</b> <span :class="{ warn: !kept }">{{ signs(says) }}</span>
      <RouterLink class="chip" :to="judging">its verdict</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.work {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  align-items: flex-start;
}
h2 {
  font-size: 2.2rem;
}
.limit {
  font-size: 1.7rem;
  font-weight: 650;
  color: var(--now);
}
.acts,
.says {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.8rem;
}
.says {
  font-size: 1.2rem;
}
a {
  text-decoration: none;
}
a.chip {
  color: inherit;
}
.warn {
  color: var(--next);
}
</style>
