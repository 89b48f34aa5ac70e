<script setup lang="ts">
import AppIcon from '../../controls/AppIcon.vue'
import { ref, watch } from 'vue'
import type { KeptLick, LineEntry } from '../../api/client'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { questions, type Finding } from './finding'

/** The library: every lick, or those that are as wanted, and the lines that were kept. */
const props = defineProps<{
  finding: Finding
  chosen: number | undefined
  entries: LineEntry[]
  openId: number
  /** Licks that cannot be read. */
  damaged: KeptLick[]
}>()
defineEmits<{
  pick: [lick: KeptLick]
  create: []
  import: []
  open: [entry: LineEntry]
  remove: [entry: LineEntry]
  removeLick: [lick: KeptLick]
}>()
const field = ref<HTMLInputElement>()
const list = ref<HTMLElement>()
// The lick under work is in sight, however it was chosen.
watch(
  () => props.chosen,
  () => list.value?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)
defineExpose({ find: () => field.value?.focus() })

const any = 'any'
const pick = (options: string[]) => [
  { value: any, text: 'any' },
  ...options.map((o) => ({ value: o, text: o })),
]
</script>

<template>
  <div class="shelf">
    <div class="find">
      <input
        ref="field"
        type="search"
        :value="finding.text.value"
        placeholder="find, as bend 4 to 5"
        aria-label="Find licks by their words"
        @input="finding.ask('text', ($event.target as HTMLInputElement).value)"
        @keydown.esc="field?.blur()"
      />
      <button
        type="button"
        class="chip"
        :aria-pressed="finding.showing.value"
        aria-label="Find by what they are"
        title="find by what they are"
        @click="finding.toggle()"
      >
        <AppIcon name="sliders" />
      </button>
    </div>
    <p v-if="finding.chips.value.length" class="chips">
      <button
        v-for="c in finding.chips.value"
        :key="c.name"
        type="button"
        class="chip"
        :aria-label="`Not ${signs(c.text)}`"
        @click="finding.ask(c.name, undefined)"
      >
        {{ signs(c.text) }} <AppIcon name="times" />
      </button>
    </p>
    <div v-if="finding.showing.value" class="asking">
      <label v-for="q in questions" :key="q.name">
        <span class="quiet">{{ q.says }}</span>
        <PillSelect
          :label="`Licks that: ${q.says}`"
          :chosen="finding.asked.value.get(q.name) ?? any"
          :options="pick(finding.options(q.name))"
          @choose="(one) => finding.ask(q.name, one === any ? undefined : one)"
        />
      </label>
      <button
        type="button"
        class="chip"
        :aria-pressed="finding.here.value"
        @click="finding.ask('here', finding.here.value ? undefined : 'yes')"
      >
        in this position
      </button>
      <button type="button" class="chip" @click="finding.toggle()">Done</button>
    </div>
    <h2>
      <template v-if="finding.found.value && finding.chips.value.length + finding.text.value.length">
        {{ finding.shown.value.length }} of {{ finding.found.value.of }}
      </template>
      <template v-else>Licks</template>
      <button type="button" class="chip" @click="$emit('create')">New</button>
      <button type="button" class="chip" @click="$emit('import')">Import</button>
    </h2>
    <div ref="list" class="scroll">
      <ol aria-label="Licks">
        <li v-for="{ lick: one, says } in finding.shown.value" :key="one.id">
          <button
            type="button"
            :class="{ chosen: one.id === chosen }"
            :aria-pressed="one.id === chosen"
            @click="$emit('pick', one)"
          >
            <b>{{ one.lick.name }}</b>
            <span class="quiet cut" :title="one.lick.about">{{ says ? signs(says) : one.lick.about }}</span>
          </button>
        </li>
        <li v-if="!finding.shown.value.length" class="none quiet">
          No lick matches here. Remove one of the filters.
        </li>
      </ol>
      <template v-if="damaged.length">
        <h2>Cannot be read</h2>
        <ol class="kept" aria-label="Licks that cannot be read">
          <li v-for="one in damaged" :key="one.id" class="damaged">
            <b>{{ one.lick.name }}</b>
            <span class="quiet">{{ one.damaged }}</span>
            <span class="quiet">
              <a :href="`/api/licks/${one.id}/text`" download>its text</a>
              <button type="button" class="chip" @click="$emit('removeLick', one)">Delete</button>
            </span>
          </li>
        </ol>
      </template>
      <template v-if="entries.length">
        <h2>Kept lines</h2>
        <ol class="kept" aria-label="Kept lines">
          <li v-for="entry in entries" :key="entry.id">
            <button
              type="button"
              :class="{ chosen: entry.id === openId }"
              :aria-pressed="entry.id === openId"
              @click="$emit('open', entry)"
            >
              <b>{{ entry.name }}</b>
              <span class="quiet">in {{ signs(entry.key) }}: {{ signs(entry.change) }}</span>
            </button>
            <button
              type="button"
              class="remove"
              :aria-label="`Delete ${entry.name}`"
              @click="$emit('remove', entry)"
            >
              <AppIcon name="trash" />
            </button>
          </li>
        </ol>
      </template>
    </div>
  </div>
</template>

<style scoped>
.shelf {
  display: flex;
  flex-direction: column;
  max-height: 25.6rem;
  border-right: 1px solid var(--line);
  padding-right: 0.6rem;
  position: relative;
}
.find {
  display: flex;
  gap: 0.4rem;
  padding-left: 0.4rem;
}
.find input {
  flex: 1;
  min-width: 0;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--paper);
  color: var(--ink);
  padding: 0.2rem 0.8rem;
  font: inherit;
  font-size: 0.92rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin: 4px 0 0 0.4rem;
}
.chips .chip {
  padding: 0.05rem 0.5rem;
  font-size: 0.82rem;
}
.chips i {
  font-size: 0.8rem;
}
.asking {
  position: absolute;
  top: 34px;
  left: 0.4rem;
  z-index: 4;
  width: min(25rem, calc(100vw - 3rem));
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem 0.9rem;
  padding: 0.8rem;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--card);
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
}
.asking label {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.4rem;
}
.shelf h2 {
  display: flex;
  align-items: baseline;
  gap: 0.5rem;
  padding: 0 0.5rem;
  margin-top: 5px;
}
.shelf h2 .chip {
  padding: 0.02rem 0.6rem;
  font-size: 0.82rem;
}
.shelf h2 .chip:first-of-type {
  margin-left: auto;
}
.scroll {
  overflow-y: auto;
  flex: 1;
}
.scroll ol + h2 {
  margin-top: 0.6rem;
}
li {
  display: flex;
}
.damaged {
  flex-direction: column;
  padding: 0.28rem 0.5rem;
}
.damaged .quiet {
  white-space: normal;
}
.none {
  padding: 0.5rem;
}
li button:first-child {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  text-align: left;
  border: 0;
  border-radius: 8px;
  background: none;
  padding: 0.28rem 0.5rem;
  cursor: pointer;
}
li button:first-child:hover {
  background: var(--shade);
}
li .quiet {
  font-size: 0.82rem;
  line-height: 1.2;
}
.chosen .cut {
  white-space: normal;
}
li button.chosen {
  background: var(--now-tint);
}
.remove {
  border: 0;
  background: none;
  color: var(--stone);
  cursor: pointer;
  border-radius: 8px;
}
.remove:hover {
  color: var(--next);
}
@container main (max-width: 52rem) {
  .shelf {
    max-height: 16rem;
    border-right: 0;
    padding-right: 0;
  }
  .asking {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
