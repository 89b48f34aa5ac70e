<script setup lang="ts">
import Button from 'primevue/button'
import { computed, nextTick, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { importChart, Problem, type Imported, type TextFault } from '../../api/client'
import { mended } from '../../controls/mended'
import { signs } from '../../controls/spelling'
import VoiceChoice from '../../controls/VoiceChoice.vue'
import { useTune } from '../../document/tune'

/** A tune from a pasted text or a file. What cannot be read stays here until it is mended. */
const tune = useTune()
const router = useRouter()
const text = ref('')
const file = shallowRef<File>()
const name = ref('')
const read = shallowRef<Imported>()
const problem = ref('')
const faults = shallowRef<TextFault[]>([])
/** What could not be read: of a file that was refused, or in the bars that are marked. */
const unreadable = computed(() =>
  read.value ? read.value.unread.map((one) => ({ ...one, message: one.text })) : faults.value,
)
type Place = Pick<TextFault, 'line' | 'column' | 'symbol'>
const field = ref<HTMLTextAreaElement>()

const textual = /\.(txt|grid|cho|chordpro|chopro|crd|pro|xml|musicxml)$/i

async function open(chosen: File | undefined) {
  if (!chosen) return
  name.value = chosen.name
  if (textual.test(chosen.name)) {
    // Kept as bytes too: what is no UTF-8 must be told, not repaired in silence.
    const bytes = new Uint8Array(await chosen.arrayBuffer())
    try {
      text.value = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
      file.value = undefined
      await look()
      return
    } catch {
      text.value = ''
    }
  } else {
    text.value = ''
  }
  file.value = chosen
  await look()
}

async function look(voices: string[] = []) {
  read.value = undefined
  problem.value = ''
  faults.value = []
  if (!file.value && !text.value.trim()) {
    problem.value = 'Paste a chart above, or open a file.'
    return
  }
  try {
    read.value = await importChart(file.value ?? text.value, {
      ...{ name: name.value, voices: voices.join(',') || undefined },
    })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
    if (error instanceof Problem) faults.value = error.faults
  }
}

function typed() {
  file.value = undefined
  read.value = undefined
}

/** Where the fault's line begins in the text. */
function lineStart(fault: Place) {
  return text.value
    .split('\n')
    .slice(0, fault.line - 1)
    .reduce((sum, line) => sum + line.length + 1, 0)
}

async function show(fault: Place) {
  await nextTick()
  const start = lineStart(fault) + Math.max(fault.column - 1, 0)
  field.value?.focus()
  field.value?.setSelectionRange(start, start + Math.max(fault.symbol.length, 1))
}

async function mend(fault: Place, by: string) {
  const start = lineStart(fault)
  const end = text.value.indexOf('\n', start)
  const line = text.value.slice(start, end < 0 ? undefined : end)
  text.value =
    text.value.slice(0, start) +
    mended(line, fault.column, fault.symbol, by) +
    (end < 0 ? '' : text.value.slice(end))
  await look()
}

async function keep() {
  if (!read.value) return
  try {
    const id = await tune.keep(read.value.chart)
    await router.push({ name: 'chart', params: { id } })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
</script>

<template>
  <form @submit.prevent="look()" @dragover.prevent @drop.prevent="open($event.dataTransfer?.files[0])">
    <textarea
      ref="field"
      v-model="text"
      rows="9"
      spellcheck="false"
      aria-label="The chart as text"
      placeholder="key: C dominant&#10;| C7 | F7 | C7 | % |&#10;…or ChordPro, or drop a file: MusicXML, .mxl, MIDI"
      @input="typed"
    />
    <div class="line">
      <label class="chip open">
        Open a file
        <input
          type="file"
          accept=".txt,.grid,.cho,.chordpro,.chopro,.crd,.pro,.xml,.musicxml,.mxl,.mid,.midi"
          aria-label="Open a file"
          @change="open(($event.target as HTMLInputElement).files?.[0])"
        />
      </label>
      <button type="submit" class="chip">Read it</button>
      <span v-if="file" class="quiet">{{ file.name }}</span>
    </div>
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <ul v-if="unreadable.length" class="faults" aria-label="What cannot be read">
      <li v-for="(fault, n) in unreadable" :key="n">
        <button v-if="fault.line && !file" type="button" class="place" @click="show(fault)">
          line {{ fault.line }}<template v-if="fault.column">, column {{ fault.column }}</template>
        </button>
        <span v-else-if="fault.line">{{ fault.line }}: </span>
        {{ fault.message }}
        <button
          v-for="near in file ? [] : fault.nearest"
          :key="near"
          type="button"
          class="chip small"
          :aria-label="`Replace ${fault.symbol} by ${near}`"
          @click="mend(fault, near)"
        >
          {{ signs(near) }}
        </button>
      </li>
      <li v-if="read" class="quiet">
        The tune can be kept as it is: these bars are marked and wait to be written over.
      </li>
    </ul>
    <template v-if="read">
      <p>
        <strong>{{ read.chart.title }}</strong>
        <span class="quiet">
          · {{ read.format }} · {{ signs(read.chart.key.tonic) }} {{ read.chart.key.mode }} ·
          {{ read.chart.meter }} · {{ read.chart.tempo }}</span
        >
      </p>
      <VoiceChoice v-if="read.voices.length > 1" :voices="read.voices" @choose="look" />
      <ol class="preview" aria-label="The bars that were read">
        <li v-for="(bar, n) in read.bars" :key="n" :class="{ unread: bar.unread }">
          {{ signs(bar.unread || bar.text) }}
        </li>
      </ol>
      <ul v-if="read.remarks.length" class="remarks" aria-label="What was not used">
        <li v-for="(remark, n) in read.remarks" :key="n">
          <template v-if="remark.line">line {{ remark.line }}: </template>{{ remark.text }}
          <span v-if="remark.source" class="quiet">“{{ remark.source }}”</span>
        </li>
      </ul>
      <Button type="button" label="Keep as a tune" @click="keep" />
    </template>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.6rem;
}
textarea {
  width: 100%;
  font-variant-numeric: tabular-nums;
  padding: 0.6rem 0.7rem;
  resize: vertical;
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
}
.open input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
.open:focus-within {
  outline: 2px solid var(--now);
  outline-offset: 2px;
}
.problem {
  padding: 0.4rem 0.7rem;
  border-radius: 8px;
  background: var(--next-tint);
}
.faults,
.remarks {
  max-height: 9rem;
  overflow-y: auto;
  font-size: 0.92rem;
}
.faults li,
.remarks li {
  padding: 0.25rem 0;
  border-top: 1px solid var(--line);
}
.place {
  border: 0;
  background: none;
  padding: 0;
  font-weight: 650;
  color: var(--next);
  text-decoration: underline;
  cursor: pointer;
}
.small {
  padding: 0.05rem 0.5rem;
  margin-left: 0.3rem;
}
.preview .unread {
  background: var(--next-tint);
}
.preview {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  max-height: 9rem;
  overflow-y: auto;
}
.preview li {
  padding: 0.15rem 0.4rem;
  border-left: 2px solid var(--string);
  font-weight: 650;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
