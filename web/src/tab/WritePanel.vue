<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onMounted, ref, watch } from 'vue'
import { usePlayer } from '../sound/player'
import { useMedia } from '../controls/media'
import { useWidth } from '../controls/measure'
import { signs } from '../controls/spelling'
import type { SaveState } from '../document/saver'
import type { Cursor } from './cursor'
import { gridAt } from './grid'
import FretPad from './FretPad.vue'
import LickFields from './LickFields.vue'
import { spokenPlace } from './spoken'
import TabEditor from './TabEditor.vue'
import { write, writeKeys } from './writekeys'
import WriteTools from './WriteTools.vue'
import type { Writing } from './writing'

/** A lick is written here: with keys, with the mouse, or with the neck above. */
const props = defineProps<{
  writing: Writing
  cursor: Cursor
  sounding: number | undefined
  /** How the saving stands; left out for notes that are kept with something else. */
  state?: SaveState | 'empty'
  /** Staff notation over the tab. */
  staff?: boolean
  /** The notes alone: they are no lick of the library with a name and tags. */
  plain?: boolean
}>()
defineEmits<{ toggleStaff: [] }>()
const StaffView = defineAsyncComponent(() => import('../staff/StaffView.vue'))

const player = usePlayer()
const { written, lick, problem, notice } = props.writing
const root = ref<HTMLElement>()
const { width } = useWidth(root, 880)
const grid = computed(() => {
  if (!written.value) return undefined
  const heard = written.value.tab.events[props.sounding ?? -1]?.tick
  return gridAt(written.value, heard ?? props.cursor.tick.value, width.value)
})
/** Without a keyboard frets are written from a strip of them. */
const touched = useMedia('(pointer: coarse)')
const staffShown = computed(() => !props.plain && props.staff)
const listing = ref(false)
const why = ref<number>()
const reason = computed(() => {
  const events = written.value?.tab.events ?? []
  const under = events.findIndex(
    (e) => e.tick === props.cursor.tick.value && e.string === props.cursor.string.value,
  )
  return events[props.sounding ?? (under >= 0 ? under : (why.value ?? -1))]?.why
})

const focus = () => root.value?.querySelector<SVGElement>('.editor')?.focus()
// Whoever comes to write, writes: the keys are the tab's as soon as it is there.
watch(written, (now, before) => now && !before && void nextTick(focus))
onMounted(() => void nextTick(focus))
defineExpose({ focus })

/** Keys write wherever the focus is in the panel, but for its fields. */
function key(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  if (event.key === 'Escape') {
    target.blur()
    return
  }
  if (!written.value || target.closest('input, [role=combobox], [role=listbox]')) return
  if (event.key === 'Enter' && target.closest('button')) return
  const did = write(event, props.cursor, written.value.tab.barTicks)
  // A letter that writes nothing is not taken for a key of the page either.
  const stray = /^[a-z]$/i.test(event.key) && !event.ctrlKey && !event.metaKey
  if (did) event.preventDefault()
  if (did || stray) event.stopPropagation()
}

const chord = ref('')
function over() {
  const from = props.cursor.tick.value
  const text = chord.value.trim()
  void props.writing.edit(
    text ? { kind: 'setChord', from, chord: text } : { kind: 'clearChord', from, to: from + 1 },
  )
  chord.value = ''
  focus()
}
const states: Record<SaveState | 'empty', string> = {
  saved: 'saved',
  saving: 'saving…',
  empty: 'kept with its first note',
  conflict: 'not saved',
  gone: 'not saved',
  failed: 'not saved',
}
</script>

<template>
  <div v-if="written && lick && grid" ref="root" class="write" @keydown="key">
    <WriteTools :cursor="cursor" />
    <FretPad v-if="touched" :cursor="cursor" />
    <StaffView
      v-if="staffShown && lick.events.length"
      :bars="written.staff.filter((b) => b.tick >= grid!.from && b.tick < grid!.to)"
      :meter="lick.meter"
      :width="width"
      :x="grid.x"
      :sounding="sounding"
    />
    <TabEditor
      :written="written"
      :cursor="cursor"
      :grid="grid"
      :width="width"
      :sounding="sounding"
      @pick="(index) => (why = index)"
    />
    <p id="written-here" class="spoken" aria-live="polite">
      {{ spokenPlace(written, cursor.tick.value, cursor.string.value) }}
    </p>
    <p class="why" role="status">
      <strong v-if="problem">{{ signs(problem) }}.</strong>
      <template v-else-if="notice">{{ signs(notice) }}.</template>
      <template v-else-if="reason">{{ signs(reason) }}</template>
      <template v-else-if="!lick.events.length">
        Type a fret, or press the neck: it is written at the cursor. The arrows move on.
      </template>
    </p>
    <div class="line">
      <button type="button" class="primary" @click="player.toggle()">
        {{ player.silent ? (cursor.selected.value ? 'Hear the selection' : 'Hear it') : 'Stop' }}
      </button>
      <button
        v-if="!plain"
        type="button"
        class="chip"
        :aria-pressed="staffShown"
        @click="$emit('toggleStaff')"
      >
        staff
      </button>
      <button type="button" class="chip" :aria-pressed="listing" @click="listing = !listing">keys</button>
      <form v-if="!plain" class="over" @submit.prevent="over">
        <input
          v-model="chord"
          size="8"
          aria-label="Chord from the cursor on"
          placeholder="chord here"
          spellcheck="false"
        />
      </form>
      <span v-if="state" class="quiet state" role="status">{{ states[state] }}</span>
    </div>
    <LickFields v-if="!staffShown && !plain" :lick="lick" :writing="writing" />
    <dl v-if="listing" class="keys">
      <div v-for="k in writeKeys" :key="k.keys">
        <dt>{{ k.keys }}</dt>
        <dd>{{ k.says }}</dd>
      </div>
    </dl>
  </div>
  <p v-else-if="problem" role="alert">{{ signs(problem) }}</p>
</template>

<style scoped>
.write {
  position: relative;
}
.line {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.3rem 0.55rem;
  margin-bottom: 3px;
}
.why {
  min-height: 1.35em;
  max-height: 2.7em;
  overflow-y: auto;
  margin: 0 0 4px;
  font-size: 0.95rem;
}
.why strong {
  color: var(--next);
}
.over {
  display: inline;
}
input {
  font-size: 0.92rem;
}
.state {
  margin-left: auto;
}
.keys {
  position: absolute;
  inset: 34px 0 auto auto;
  z-index: 3;
  width: min(27rem, 100%);
  max-height: var(--panel-most, 22rem);
  overflow-y: auto;
  margin: 0;
  padding: 0.6rem 0.9rem;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--card);
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
}
.keys div {
  display: grid;
  grid-template-columns: 7.2rem 1fr;
  gap: 0.6rem;
}
.keys dt {
  font-weight: 650;
}
.keys dd {
  margin: 0;
  color: var(--stone);
}
</style>
