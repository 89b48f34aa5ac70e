<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'
import { answer, client, type SessionBlock, type SessionEntry } from '../../api/client'
import { minutesOf } from './plan'

/** Plans that are kept to be begun again. */
const props = defineProps<{ blocks: SessionBlock[] }>()
const emit = defineEmits<{ take: [blocks: SessionBlock[]] }>()
const all = shallowRef<SessionEntry[]>([])
const problem = ref('')
async function attempt(work: () => Promise<unknown>) {
  try {
    problem.value = ''
    await work()
    all.value = (await answer(client.GET('/api/sessions'))).filter((one) => one.template && !one.damaged)
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
onMounted(() => attempt(() => Promise.resolve()))
const keep = () =>
  attempt(() => {
    const minutes = minutesOf(props.blocks)
    const name = `${minutes} minutes, ${props.blocks.filter((b) => b.item).map((b) => b.title)[0] ?? 'cards'}`
    const blocks = props.blocks.map((block) => ({ ...block, seconds: 0 }))
    return answer(
      client.POST('/api/sessions', {
        body: { name: name.slice(0, 60), minutes, at: 0, template: true, blocks },
      }),
    )
  })
const take = (one: SessionEntry) =>
  attempt(async () => {
    const got = await answer(client.GET('/api/sessions/{id}', { params: { path: { id: one.id } } }))
    emit('take', got.session.blocks)
  })
const drop = (one: SessionEntry) =>
  attempt(() =>
    answer(
      client.DELETE('/api/sessions/{id}', {
        params: { path: { id: one.id }, query: { version: one.version } },
      }),
    ),
  )
</script>

<template>
  <div class="templates">
    <button type="button" class="chip" :disabled="!blocks.length" @click="keep">keep as a template</button>
    <span v-for="one in all" :key="one.id" class="one">
      <button type="button" class="chip" @click="take(one)">{{ one.name }}</button>
      <button type="button" class="chip" :aria-label="`Drop the template ${one.name}`" @click="drop(one)">
        ×
      </button>
    </span>
    <span v-if="problem" class="warn" role="alert">{{ problem }}</span>
  </div>
</template>

<style scoped>
.templates {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 0.5rem 0.6rem 0;
}
.one {
  display: inline-flex;
  gap: 2px;
}
.warn {
  color: var(--next);
}
</style>
