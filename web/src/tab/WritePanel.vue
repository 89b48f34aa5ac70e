<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onMounted, ref, watch } from 'vue'
import { usePlayer } from '../sound/player'
import { signs } from '../controls/spelling'
import { useTune } from '../document/tune'
import type { SaveState } from '../document/saver'
import PillSelect from '../controls/PillSelect.vue'
import { speeds } from '../sound/speeds'
import type { Cursor, Grade } from './cursor'
import { gridAt } from './grid'
import TabEditor from './TabEditor.vue'
import { techniqueKeys, write, writeKeys } from './writekeys'
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

const tune = useTune()
const player = usePlayer()
const { written, lick, problem, said } = props.writing
const width = 880
const grid = computed(() => {
  if (!written.value) return undefined
  const heard = written.value.tab.events[props.sounding ?? -1]?.tick
  return gridAt(written.value, heard ?? props.cursor.tick.value, width)
})
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

const root = ref<HTMLElement>()
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

const grades: { name: Grade; sign: string; says: string }[] = [
  { name: 'dotted', sign: '.', says: 'dotted' },
  { name: 'triplet', sign: '3', says: 'triplet' },
]
const lengthSigns: Record<string, string> = {
  whole: '1',
  half: '½',
  quarter: '¼',
  eighth: '⅛',
  sixteenth: '1/16',
  'thirty-second': '1/32',
}
const chord = ref('')
function over() {
  const from = props.cursor.tick.value
  const text = chord.value.trim()
  void props.writing.edit(text ? { do: 'over', from, chord: text } : { do: 'not over', from, to: from + 1 })
  chord.value = ''
  focus()
}
const tags = computed(() => lick.value?.tags?.join(', ') ?? '')
const split = (text: string) => text.split(',').flatMap((tag) => tag.trim() || [])
const value = (event: Event) => (event.target as HTMLInputElement).value
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
    <div class="line">
      <span class="group" role="group" aria-label="Length">
        <button
          v-for="l in cursor.lengths.value"
          :key="l.name"
          type="button"
          class="chip tool"
          :aria-pressed="l.name === cursor.base.value"
          :aria-label="l.name"
          :title="l.name"
          @click="cursor.setLength(l.name, cursor.grade.value)"
        >
          {{ lengthSigns[l.name] }}
        </button>
        <button
          v-for="g in grades"
          :key="g.name"
          type="button"
          class="chip tool"
          :aria-pressed="cursor.grade.value === g.name"
          :aria-label="g.says"
          :title="g.says"
          @click="cursor.regrade(g.name)"
        >
          {{ g.sign }}
        </button>
      </span>
      <span class="group" role="group" aria-label="How it is played">
        <button
          v-for="t in techniqueKeys"
          :key="t.name"
          type="button"
          class="chip tool"
          :title="`${t.name} (${t.key})`"
          :aria-label="t.name"
          @click="cursor.play(t.name)"
        >
          {{ t.short }}
        </button>
        <button type="button" class="chip tool" title="bend (b)" @click="cursor.bend()">bend</button>
        <button
          type="button"
          class="chip tool"
          title="a quarter tone (q)"
          aria-label="quarter tone"
          @click="cursor.quarter()"
        >
          ¼
        </button>
      </span>
    </div>
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
    <p class="why" role="status">
      <strong v-if="problem">{{ signs(problem) }}.</strong>
      <template v-else-if="said">{{ signs(said) }}.</template>
      <template v-else-if="reason">{{ signs(reason) }}</template>
      <template v-else-if="!lick.events.length">
        Type a fret, or click the neck: it is written at the cursor. The arrows move on.
      </template>
    </p>
    <div class="line">
      <button type="button" class="primary" @click="player.toggle()">
        {{ player.silent ? (cursor.selected.value ? 'Hear the selection' : 'Hear it') : 'Stop' }}
      </button>
      <button type="button" class="chip" :aria-pressed="player.loop" @click="player.setLoop(!player.loop)">
        loop
      </button>
      <PillSelect
        label="Speed"
        :chosen="String(player.speed)"
        :options="speeds"
        @choose="(one) => player.setSpeed(Number(one))"
      />
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
    <div v-if="!staffShown && !plain" class="line fields">
      <input
        class="name"
        :value="lick.name"
        aria-label="Name"
        maxlength="60"
        @change="writing.edit({ name: value($event) })"
      />
      <input
        class="about"
        :value="lick.about"
        aria-label="What it is good for"
        placeholder="what it is good for"
        maxlength="200"
        @change="writing.edit({ about: value($event) })"
      />
      <input
        class="tags"
        :value="tags"
        aria-label="Tags"
        placeholder="tags, apart by commas"
        @change="writing.edit({ tags: split(value($event)) })"
      />
      <span class="quiet">in</span>
      <PillSelect
        label="Key of the lick"
        :chosen="lick.tonic"
        :options="(tune.choices?.tonics.dominant ?? []).map((t) => ({ value: t, text: t }))"
        @choose="(one) => writing.edit({ tonic: one })"
      />
      <PillSelect
        v-if="!lick.events.length"
        label="Meter of the lick"
        :chosen="lick.meter"
        :options="(tune.choices?.meters ?? []).map((m) => ({ value: m, text: m }))"
        @choose="(one) => writing.edit({ meter: one })"
      />
    </div>
    <dl v-if="listing" class="keys">
      <div v-for="k in writeKeys" :key="k.keys">
        <dt>{{ k.keys }}</dt>
        <dd>{{ k.says }}</dd>
      </div>
    </dl>
  </div>
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
.group {
  display: flex;
  gap: 2px;
}
.tool {
  padding: 0.06rem 0.38rem;
  font-size: 0.8rem;
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
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--paper);
  color: var(--ink);
  padding: 0.2rem 0.5rem;
  font: inherit;
  font-size: 0.92rem;
  min-width: 0;
}
.name {
  width: 11rem;
  font-weight: 650;
}
.about {
  flex: 1;
}
.tags {
  width: 11rem;
}
.state {
  margin-left: auto;
}
.keys {
  position: absolute;
  inset: 34px 0 auto auto;
  z-index: 3;
  width: 27rem;
  max-height: 330px;
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
