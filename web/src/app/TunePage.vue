<script setup lang="ts">
import { computed, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { Problem } from '../api/client'
import { useView } from '../address/view'
import { hearingOnStrip, landingsOnStrip } from '../controls/formstrip'
import { useKeys } from '../controls/keys'
import SaveNotice from '../document/SaveNotice.vue'
import { useTune } from '../document/tune'
import { useUndo } from '../document/undo'
import { usePlayer } from '../sound/player'
import FormStrip from './FormStrip.vue'
import TuneHeader from './TuneHeader.vue'

const route = useRoute()
const router = useRouter()
const tune = useTune()
const view = useView()
const player = usePlayer()
const { undo, redo } = useUndo()
const missing = ref('')
const damaged = ref(false)
const wanted = computed(() => Number(route.params.id))

watch(
  wanted,
  async (id) => {
    if (!id) return
    missing.value = ''
    try {
      await tune.open(id)
    } catch (error) {
      if (id !== wanted.value) return
      missing.value = error instanceof Error ? error.message : String(error)
      damaged.value = error instanceof Problem && error.damaged
    }
  },
  { immediate: true },
)

// Changes are what Change and Licks work on; Map works on the one chord.
const shownChange = computed(() => (route.name === 'map' ? undefined : view.change.value))

watchEffect(() => {
  document.title = tune.chart && !missing.value ? `${tune.chart.title} · Undaris` : 'Undaris'
})

const goTo = (id: number) => router.push({ name: route.name ?? 'chart', params: { id }, query: route.query })

async function step(which: typeof undo) {
  const refused = await which()
  if (refused) tune.tell(refused)
}
useKeys([
  { key: ' ', shown: 'space', says: 'play and stop', run: () => player.toggle() },
  { key: 'ArrowLeft', shown: '←', says: 'the change before', run: () => view.walkChanges(-1) },
  { key: 'ArrowRight', shown: '→', says: 'the next change', run: () => view.walkChanges(1) },
  { key: '[', says: 'a position lower', run: () => view.walkPositions(-1) },
  { key: ']', says: 'a position higher', run: () => view.walkPositions(1) },
  { key: 'Mod+z', shown: 'Ctrl z', says: 'undo', run: () => void step(undo) },
  { key: 'Mod+Shift+z', shown: 'Ctrl ⇧ z', says: 'redo', run: () => void step(redo) },
])
</script>

<template>
  <p v-if="missing" class="missing" role="alert">
    {{ missing }}. <RouterLink to="/">All tunes</RouterLink>
    <template v-if="damaged"> show its versions and its text, and can delete it. </template>
  </p>
  <template v-else-if="tune.kept && tune.read && tune.map && tune.id === wanted">
    <TuneHeader />
    <SaveNotice :document="tune.kept" what="tune" :mended="tune.mended" @kept-as-new="goTo" />
    <p v-if="tune.problem" class="problem" role="alert">
      {{ tune.problem }}
      <button type="button" class="chip" @click="tune.problem = ''">Close</button>
    </p>
    <FormStrip
      v-if="route.name !== 'chart'"
      :moments="tune.read.moments"
      :now="view.moment.value"
      :change="shownChange"
      :playing="player.bar"
      :landings="landingsOnStrip"
      :heard="hearingOnStrip"
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
