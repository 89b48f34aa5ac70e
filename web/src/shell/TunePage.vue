<script setup lang="ts">
import { computed, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { thread } from '../change/path'
import { hearing } from '../solo/hearing'
import { usePlayer } from '../sound/player'
import { useKeys } from '../tune/keys'
import { useTune } from '../tune/tune'
import { useUndoing } from '../tune/undoing'
import { useView } from '../tune/view'
import FormStrip from './FormStrip.vue'
import TuneHeader from './TuneHeader.vue'

const route = useRoute()
const router = useRouter()
const tune = useTune()
const view = useView()
const player = usePlayer()
const undoing = useUndoing()
const missing = ref('')

watch(
  () => Number(route.params.id),
  async (id) => {
    if (!id) return
    try {
      missing.value = ''
      await tune.open(id)
    } catch (error) {
      missing.value = error instanceof Error ? error.message : String(error)
    }
  },
  { immediate: true },
)

// Changes are what Change and Licks work on; Map works on the one chord.
const shownChange = computed(() => (route.name === 'map' ? undefined : view.change.value))

watchEffect(() => {
  document.title = tune.chart && !missing.value ? `${tune.chart.title} · Undaris` : 'Undaris'
})

async function keepAsNew() {
  const id = await tune.keepAsNew()
  if (id) await router.push({ name: route.name ?? 'map', params: { id }, query: route.query })
}

useKeys([
  { key: ' ', shown: 'space', says: 'play and stop', run: () => void player.toggle() },
  { key: 'ArrowLeft', shown: '←', says: 'the change before', run: () => view.walkChanges(-1) },
  { key: 'ArrowRight', shown: '→', says: 'the next change', run: () => view.walkChanges(1) },
  { key: '[', says: 'a position lower', run: () => view.walkPositions(-1) },
  { key: ']', says: 'a position higher', run: () => view.walkPositions(1) },
  { key: 'Mod+z', shown: 'Ctrl z', says: 'undo', run: () => void undoing.undo() },
  { key: 'Mod+Shift+z', shown: 'Ctrl ⇧ z', says: 'redo', run: () => void undoing.redo() },
])
</script>

<template>
  <p v-if="missing" class="missing" role="alert">{{ missing }}. <RouterLink to="/">All tunes</RouterLink></p>
  <template v-else-if="tune.read && tune.map && tune.id === Number(route.params.id)">
    <TuneHeader />
    <p v-if="tune.problem" class="problem" role="alert">
      {{ tune.problem }}
      <template v-if="tune.saveState === 'elsewhere'">
        <button type="button" class="chip" @click="tune.reload()">Show what was saved</button>
        <button type="button" class="chip" @click="tune.keepMine()">Keep mine as the newest version</button>
        <button type="button" class="chip" @click="keepAsNew">Keep mine as a new tune</button>
      </template>
      <button v-else type="button" class="chip" @click="tune.problem = ''">Close</button>
    </p>
    <FormStrip
      v-if="route.name !== 'chart'"
      :moments="tune.read.moments"
      :now="view.moment.value"
      :change="shownChange"
      :playing="player.bar"
      :landings="thread"
      :heard="hearing"
      @pick="view.goTo"
    />
    <RouterView />
  </template>
  <p v-else class="missing quiet">Opening the tune…</p>
</template>

<style scoped>
.missing {
  padding: 3rem 0;
  font-size: 1.1rem;
}
.problem {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  padding: 0.45rem 0.8rem;
  margin-bottom: 0.4rem;
  border-radius: 8px;
  background: var(--next-tint);
  color: var(--ink);
}
</style>
