<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client, Problem } from '../api/client'
import { useView } from '../address/view'
import { impliedOnStrip, landingsOnStrip, stripShows } from '../controls/formstrip'
import { useKeys } from '../controls/keys'
import { signs } from '../controls/spelling'
import NoticeRow from '../controls/NoticeRow.vue'
import SaveNotice from '../document/SaveNotice.vue'
import { useAnswer } from '../api/ask'
import { useBand } from '../document/band'
import { useTune } from '../document/tune'
import { useUndo } from '../document/undo'
import { following } from '../address/following'
import { parts } from '../sound/mixer'
import { usePlayer } from '../sound/player'
import { useRecording } from '../sound/recording'
import FormStrip from './FormStrip.vue'
import { usePlayNotes } from './playnotes'
import SessionBar from './SessionBar.vue'
import TuneHeader from './TuneHeader.vue'

const route = useRoute()
const router = useRouter()
const tune = useTune()
const view = useView()
watch(
  () => view.moment.value?.tick,
  (tick) => (tune.lookedAt = tick ?? 0),
  { immediate: true },
)
const player = usePlayer()
const band = useBand()
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
const shownChange = computed(() =>
  route.name === 'map' || route.name === 'play' ? undefined : view.change.value,
)

usePlayNotes()
// Where the tune cannot be stopped it does not sound: on the page of all tunes, and in another tune.
watch(wanted, () => void player.stop())
onBeforeUnmount(() => void player.stop())

// In another key, or over one chord, the strip shows what sounds.
const { answer: soundingRead } = useAnswer(
  () => (player.differsFromTune ? (player.chunk?.ownChart ?? player.chunk?.pass?.chart) : undefined),
  (chart, signal) => answer(client.POST('/api/compute/chart', { body: { chart }, signal })),
)
const strip = computed(() => {
  const read = (player.differsFromTune && soundingRead.value) || tune.read
  const moments = read?.chordSpans ?? []
  const tick = player.differsFromTune ? player.chord?.at : undefined
  const now = tick === undefined ? view.moment.value : moments.findLast((m) => m.tick <= tick)
  return { moments, now }
})

/** Where one is, said when it changes; while the band plays it would be said over the music. */
const announced = computed(() => {
  if (!player.silent || route.name === 'chart') return ''
  const { leaving, arriving } = shownChange.value ?? {}
  if (leaving && arriving)
    return `Bar ${leaving.bar} to ${arriving.bar}: ${signs(leaving.chord)} gives way to ${signs(arriving.chord)}`
  const at = view.moment.value
  return at ? `Bar ${at.bar}, ${signs(at.chord)}, position ${view.position.value?.label ?? ''}` : ''
})

const recording = useRecording()
watchEffect(() => {
  const title = tune.chart && !missing.value ? `${tune.chart.title} · Undaris` : 'Undaris'
  document.title = recording.recordsNow ? `● recording · ${title}` : title
})

const goTo = (id: number) => router.push({ name: route.name ?? 'chart', params: { id }, query: route.query })

/** In Chart the tune itself becomes faster; elsewhere it is only played so. */
const faster = (by: number) => (route.name === 'chart' ? tune.makeFaster(by) : player.faster(2 * by))
/** Loops the bar under work, then the bars after it too, or fewer of them. */
function growLoop(by: number) {
  const last = tune.read?.facts.bars ?? 1
  const bar = view.moment.value?.bar ?? 1
  const now = player.loop ? player.bars : undefined
  if (!now) return by > 0 ? void player.loopBars(bar, bar) : undefined
  const to = Math.min(now.to + by, last)
  void (to < now.from ? player.loopBars() : player.loopBars(now.from, to))
}
useKeys(
  parts.map((part, n) => ({
    key: `Shift+${n + 1}`,
    shown: `⇧ ${n + 1}`,
    says: `${part}: heard or silent`,
    run: () => void band.toggleSilent(part),
  })),
)

async function step(which: typeof undo) {
  const refused = await which()
  if (refused) tune.tell(refused)
}
useKeys([
  { key: ' ', shown: 'space', says: 'play and stop', run: () => player.toggle() },
  { key: 'End', says: 'end well: slow down at the end of this chorus', run: () => void player.finish() },
  { key: 'z', says: 'loop on and off', run: () => player.setLoop(!player.loop) },
  { key: 'Shift+ArrowRight', shown: '⇧ →', says: 'loop this bar, then a bar more', run: () => growLoop(1) },
  { key: 'Shift+ArrowLeft', shown: '⇧ ←', says: 'loop a bar less', run: () => growLoop(-1) },
  { key: 'Home', says: 'follow what sounds again', run: () => (following.value = true) },
  { key: '+', says: 'faster', run: () => faster(1) },
  { key: '-', says: 'slower', run: () => faster(-1) },
  { key: 'ArrowLeft', shown: '←', says: 'the change before', run: () => view.walkChanges(-1) },
  { key: 'ArrowRight', shown: '→', says: 'the next change', run: () => view.walkChanges(1) },
  { key: '[', says: 'a position lower', run: () => view.walkPositions(-1) },
  { key: ']', says: 'a position higher', run: () => view.walkPositions(1) },
  { key: 'Mod+z', shown: 'Ctrl z', says: 'undo', run: () => void step(undo) },
  { key: 'Mod+Shift+z', shown: 'Ctrl ⇧ z', says: 'redo', run: () => void step(redo) },
])
</script>

<template>
  <p class="spoken" aria-live="polite">{{ announced }}</p>
  <p v-if="missing" class="missing" role="alert">
    {{ missing }}. <RouterLink to="/">All tunes</RouterLink>
    <template v-if="damaged"> show its versions and its text, and can delete it. </template>
  </p>
  <template v-else-if="tune.kept && tune.read && tune.map && tune.id === wanted">
    <TuneHeader />
    <SessionBar />
    <SaveNotice :document="tune.kept" what="tune" :mended="tune.mended" @kept-as-new="goTo" />
    <NoticeRow v-if="tune.problem" alert>
      {{ tune.problem }}
      <template #actions>
        <button type="button" class="chip" @click="tune.problem = ''">Close</button>
      </template>
    </NoticeRow>
    <FormStrip
      v-if="route.name !== 'chart' && stripShows !== 'nothing'"
      :low="route.name === 'play'"
      :nameless="stripShows === 'bars'"
      :moments="strip.moments"
      :now="strip.now"
      :change="player.differsFromTune ? undefined : shownChange"
      :playing="player.bar"
      :landings="landingsOnStrip"
      :heard="impliedOnStrip"
      :changes="player.differsFromTune ? undefined : tune.read?.played.map((bar) => bar.changes)"
      :looped="player.loop ? player.bars : undefined"
      @pick="view.goTo"
      @loop="player.loopBars"
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
</style>
