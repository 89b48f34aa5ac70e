<script setup lang="ts">
import { ref } from 'vue'
import { importLick, Problem, type ImportedLick, type Lick, type TextFault } from '../../api/client'
import { signs } from '../../controls/spelling'
import VoiceChoice from '../../controls/VoiceChoice.vue'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'

/** A lick brought in from a file or a paste: what was read, what was taken for granted, what could not be. */
defineEmits<{ keep: [lick: Lick] }>()
const tune = useTune()
const view = useView()
const text = ref('')
const file = ref<File>()
const read = ref<ImportedLick>()
const problem = ref('')
const faults = ref<TextFault[]>([])

async function look(voices: string[] = []) {
  problem.value = ''
  faults.value = []
  read.value = undefined
  if (!file.value && !text.value.trim()) return
  try {
    read.value = await importLick(file.value ?? text.value, {
      name: file.value?.name,
      voices: voices.join(',') || undefined,
      tonic: tune.chart?.key.tonic,
      meter: tune.chart?.meter,
      fret: view.position.value?.core,
    })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
    if (error instanceof Problem) faults.value = error.faults
  }
}
async function open(one: File | undefined) {
  if (!one) return
  file.value = one
  text.value = ''
  await look()
}
function typed() {
  file.value = undefined
  read.value = undefined
}
</script>

<template>
  <form @submit.prevent="look()" @dragover.prevent @drop.prevent="open($event.dataTransfer?.files[0])">
    <textarea
      v-model="text"
      rows="9"
      spellcheck="false"
      aria-label="The lick as tab"
      placeholder="   1  &  2  &
E|-----------8--|
B|--8--11p8-----|  … a line for each string, a count above if there is one; or drop a file: MusicXML, MIDI"
      @input="typed"
    />
    <div class="line">
      <label class="chip open">
        Open a file
        <input
          type="file"
          accept=".txt,.tab,.xml,.musicxml,.mxl,.mid,.midi,.json"
          aria-label="Open a lick's file"
          @change="open(($event.target as HTMLInputElement).files?.[0])"
        />
      </label>
      <button type="submit" class="chip">Read it</button>
      <span v-if="file" class="quiet">{{ file.name }}</span>
      <span v-if="read">
        <strong>{{ read.lick.name }}</strong>
        <span class="quiet">
          · {{ read.format }} · {{ read.lick.events.length }} notes in {{ signs(read.lick.tonic) }},
          {{ read.lick.meter }}</span
        >
      </span>
      <button v-if="read" type="button" class="primary" @click="$emit('keep', read.lick)">
        Keep and write on
      </button>
    </div>
    <VoiceChoice v-if="(read?.voices.length ?? 0) > 1" :voices="read!.voices" @choose="look" />
    <p v-if="problem" role="alert" class="problem">{{ signs(problem) }}</p>
    <ul v-if="faults.length" aria-label="What cannot be read">
      <li v-for="(fault, n) in faults" :key="n">
        <span v-if="fault.line" class="quiet"
          >line {{ fault.line }}<template v-if="fault.column">, column {{ fault.column }}</template
          >:</span
        >
        {{ signs(fault.message) }}
      </li>
    </ul>
    <ul v-if="read?.remarks.length" class="remarks" aria-label="What was assumed">
      <li v-for="(remark, n) in read.remarks" :key="n">
        <span v-if="remark.line" class="quiet">line {{ remark.line }}:</span> {{ signs(remark.text) }}
      </li>
    </ul>
  </form>
</template>

<style scoped>
textarea {
  width: 100%;
  box-sizing: border-box;
  padding: 0.5rem 0.7rem;
  font-family: ui-monospace, monospace;
  font-size: 0.92rem;
  line-height: 1.25;
  resize: none;
}
.line {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  margin: 6px 0;
}
.open input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.problem {
  color: var(--next);
  font-weight: 650;
}
ul {
  margin: 0;
  padding-left: 1.1rem;
  max-height: var(--panel-most, 7.33rem);
  overflow-y: auto;
  font-size: 0.92rem;
}
</style>
