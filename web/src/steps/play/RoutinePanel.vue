<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Routine, Segment } from '../../api/client'
import { signs } from '../../controls/spelling'
import { useBand } from '../../document/band'
import SegmentEditor from './SegmentEditor.vue'

/** What is played through: the routine, its segments, and the player's own ones. */
const props = defineProps<{
  /** The segment that sounds, from 0. */
  sounding: number | undefined
}>()
const band = useBand()
const edited = ref<number>()
const editing = defineModel<boolean>('editing', { default: false })
const shown = computed(() => band.chosen)
const segment = computed(() =>
  edited.value === undefined ? undefined : shown.value?.routine.segments[edited.value],
)
watch(segment, (now) => (editing.value = now !== undefined))
const names = computed(() => new Set(band.routines.map((r) => r.routine.name)))

function choose(name: string) {
  edited.value = undefined
  return band.edit(`routine: ${name}`, { chosen: name })
}

/** A name that no routine has yet. */
function freeName(base: string): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? base : `${base} ${n}`
    if (!names.value.has(name)) return name
  }
}

/** Changes the routine on screen; of a ready-made one a copy becomes the player's own. */
async function change(label: string, edit: (routine: Routine) => Routine, gesture?: string) {
  const now = shown.value
  if (!now) return
  const own = band.band.routines ?? []
  if (now.own) {
    const next = edit(now.routine)
    const routines = own.map((r) => (r.name === now.routine.name ? next : r))
    await band.edit(label, { routines, chosen: next.name }, gesture)
    return
  }
  const copy = edit({ ...now.routine, name: freeName(`my ${now.routine.name}`) })
  await band.edit(label, { routines: [...own, copy], chosen: copy.name })
}
const changeSegments = (label: string, to: (all: Segment[]) => Segment[], gesture?: string) =>
  change(label, (r) => ({ ...r, segments: to(r.segments) }), gesture)

async function add() {
  const at = shown.value?.routine.segments.length ?? 0
  await changeSegments('add a segment', (all) => [...all, { name: 'with the band', choruses: 1 }])
  edited.value = at
}
const set = (to: Segment, gesture?: string) =>
  changeSegments(
    'change a segment',
    (all) => all.map((one, n) => (n === edited.value ? to : one)),
    `segment ${edited.value} ${gesture ?? ''}`,
  )
async function remove() {
  const at = edited.value
  edited.value = undefined
  await changeSegments('delete a segment', (all) => all.filter((_, n) => n !== at))
}
async function moveBy(by: number) {
  const at = edited.value ?? 0
  const to = at + by
  await changeSegments('move a segment', (all) => {
    const next = [...all]
    const [one] = next.splice(at, 1)
    if (one) next.splice(to, 0, one)
    return next
  })
  edited.value = to
}

function rename(name: string) {
  const text = name.trim()
  if (!text || text === shown.value?.routine.name || names.value.has(text)) return
  void change('rename the routine', (r) => ({ ...r, name: text }))
}
async function deleteRoutine() {
  const name = shown.value?.routine.name
  edited.value = undefined
  await band.edit('delete the routine', {
    routines: (band.band.routines ?? []).filter((r) => r.name !== name),
    chosen: undefined,
  })
}
const state = (n: number) =>
  props.sounding === undefined ? '' : n < props.sounding ? 'played' : n === props.sounding ? 'sounds' : ''
</script>

<template>
  <div v-if="shown">
    <div class="choices routines" role="group" aria-label="Routines">
      <button
        v-for="one in band.routines"
        :key="one.routine.name"
        type="button"
        class="chip"
        :class="{ own: one.own }"
        :aria-pressed="one.routine.name === shown.routine.name"
        @click="choose(one.routine.name)"
      >
        {{ one.routine.name }}
      </button>
    </div>
    <ol class="segments">
      <li v-for="(one, n) in shown.routine.segments" :key="n">
        <button
          type="button"
          class="card"
          :class="state(n)"
          :aria-pressed="edited === n"
          title="Click it to change it"
          :aria-current="state(n) === 'sounds' ? 'step' : undefined"
          @click="edited = edited === n ? undefined : n"
        >
          <strong>{{ one.name || `segment ${n + 1}` }}</strong>
          <span class="quiet"
            >{{ signs(shown.segments[n]?.text ?? '') }}{{ state(n) === 'played' ? ' · played' : '' }}</span
          >
        </button>
      </li>
      <li><button type="button" class="card add" @click="add">+ segment</button></li>
    </ol>
    <template v-if="segment">
      <SegmentEditor
        :segment="segment"
        :first="edited === 0"
        :last="edited === shown.routine.segments.length - 1"
        @set="set"
        @remove="remove"
        @move="moveBy"
        @close="edited = undefined"
      />
    </template>
    <p v-if="shown.own && editing" class="own-acts">
      <label class="quiet" for="routine-name">name of the routine</label>
      <input
        id="routine-name"
        class="name"
        :value="shown.routine.name"
        maxlength="60"
        @change="(event) => rename((event.target as HTMLInputElement).value)"
      />
      <button type="button" class="chip" @click="deleteRoutine">Delete the routine</button>
      <!-- In this row, so that nothing moves under the hand when it comes or goes. -->
      <span v-if="shown.fault" class="fault" role="alert">{{ signs(shown.fault) }}.</span>
    </p>
    <p v-else-if="shown.fault" class="fault" role="alert">{{ signs(shown.fault) }}.</p>
  </div>
</template>

<style scoped>
.routines {
  row-gap: 6px;
}
.own {
  font-weight: 650;
}
.fault {
  color: var(--next);
}
.segments {
  display: flex;
  gap: 8px;
  overflow-x: auto;
  padding: 3px 2px 4px;
  scrollbar-width: thin;
}
.segments li {
  flex: 1 0 152px;
  max-width: 260px;
}
.card {
  display: flex;
  flex-direction: column;
  gap: 2px;
  width: 100%;
  height: 100%;
  min-height: 52px;
  padding: 0.35rem 0.8rem;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--paper);
  text-align: left;
  cursor: pointer;
}
.card .quiet {
  font-size: 0.88rem;
}
.card.sounds {
  border: 2px solid var(--now);
  background: var(--now-tint);
}
.card[aria-pressed='true'] {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}
.card.add {
  align-items: center;
  justify-content: center;
  border-style: dashed;
  background: none;
  color: var(--stone);
}
.own-acts {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  margin-top: 0.2rem;
  font-size: 0.92rem;
}
.name {
  font: inherit;
  color: inherit;
  width: 14rem;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--card);
  padding: 0.2rem 0.8rem;
}
</style>
