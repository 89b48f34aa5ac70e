<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import type { Problem } from '../../api/client'
import { named } from '../../controls/options'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { useTune, type ChartEdit } from '../../document/tune'
import JumpFields from './JumpFields.vue'
import { keyOf, useKeyOptions } from './keyoptions'
import type { Selection } from './selection'

/** The form of the song: where key, meter and feel change, endings, jumps and the pickup. */
const props = defineProps<{ selection: Selection }>()
const tune = useTune()
const bars = computed(() => tune.read?.bars ?? [])
const first = computed(() => Math.min(props.selection.first.value, bars.value.length - 1))
const bar = computed(() => bars.value[first.value])
const title = computed(() => {
  const count = props.selection.size.value
  return count > 1 ? `Bars ${first.value + 1}–${first.value + count}` : `From bar ${first.value + 1}`
})

/** Several bars that are selected change alone; one changes with those after it. */
const onwards = ref(true)
watch(
  () => props.selection.size.value,
  (count) => (onwards.value = count < 2),
  { immediate: true },
)
const moving = ref(false)

const keys = useKeyOptions()
const refused = ref<Problem>()
async function edit(change: ChartEdit) {
  refused.value = await tune.attempt(change)
}
type Setting = NonNullable<ChartEdit['setting']>
const set = (setting: Partial<Setting>) =>
  edit({
    setting: {
      bar: first.value + 1,
      count: onwards.value ? undefined : props.selection.size.value || 1,
      ...setting,
    },
  })
const setKey = (value: string) => set({ key: keyOf(value), move: moving.value || undefined })

const pickup = ref('')
watch(
  () => tune.read?.pickupText,
  (text) => (pickup.value = text ?? ''),
  { immediate: true },
)
const pickupBeats = computed(() => (tune.read?.pickup ?? []).reduce((sum, one) => sum + one.beats, 0))
/** A pickup is shorter than bar 1. */
const beatsBefore = computed(() => Array.from({ length: (bars.value[0]?.beats ?? 1) - 1 }, (_, n) => n + 1))
</script>

<template>
  <p v-if="refused" class="refused" role="alert">{{ refused.message }}</p>
  <template v-if="bar">
    <h2>{{ title }}</h2>
    <div class="line">
      <span class="what">Key</span>
      <PillSelect label="Key from this bar" :chosen="bar.key" :options="keys" @choose="setKey" />
      <label class="check"><input v-model="moving" type="checkbox" /> move the chords</label>
    </div>
    <div class="line">
      <span class="what">Meter</span>
      <PillSelect
        label="Meter from this bar"
        :chosen="bar.meter"
        :options="named(tune.choices?.meters)"
        @choose="(meter) => set({ meter })"
      />
    </div>
    <div class="line">
      <span class="what">Feel</span>
      <PillSelect
        label="Feel from this bar"
        :chosen="bar.feel"
        :options="named(tune.choices?.feels)"
        @choose="(feel) => set({ feel })"
      />
    </div>
    <div class="line">
      <span class="what">For</span>
      <button type="button" class="chip" :aria-pressed="!onwards" @click="onwards = false">
        {{ selection.size.value > 1 ? 'these bars' : 'this bar alone' }}
      </button>
      <button type="button" class="chip" :aria-pressed="onwards" @click="onwards = true">
        this bar onwards
      </button>
    </div>
    <h2>Back and on</h2>
    <JumpFields :bar="first + 1" @edit="edit" />
    <h2>Before bar 1</h2>
    <div class="line">
      <span class="what">Pickup</span>
      <button
        type="button"
        class="chip"
        :aria-pressed="pickupBeats === 0"
        @click="edit({ pickup: { beats: 0 } })"
      >
        none
      </button>
      <button
        v-for="n in beatsBefore"
        :key="n"
        type="button"
        class="chip"
        :aria-label="`A pickup of ${n} beats`"
        :aria-pressed="pickupBeats === n"
        @click="edit({ pickup: { beats: n } })"
      >
        {{ n }}
      </button>
      <span class="quiet">beats</span>
    </div>
    <form v-if="pickupBeats" class="line" @submit.prevent="edit({ pickup: { text: pickup } })">
      <label class="what" for="pickup">Chords</label>
      <InputText id="pickup" v-model="pickup" class="grow" :placeholder="signs('G7, or N.C.')" />
      <button type="submit" class="chip">Write</button>
    </form>
  </template>
</template>

<style scoped>
h2:not(:first-child) {
  margin-top: 1rem;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  position: relative;
  padding-left: 4.2rem;
  margin-bottom: 0.6rem;
}
.what {
  position: absolute;
  left: 0;
  top: 0.3rem;
  font-size: 0.92rem;
  color: var(--stone);
}
.check {
  font-size: 0.92rem;
}
.grow {
  flex: 1;
  min-width: 0;
}
.line :deep(.p-inputtext) {
  padding: 0.25rem 0.55rem;
}
.refused {
  padding: 0.5rem 0.7rem;
  margin-bottom: 0.6rem;
  border-radius: 8px;
  background: var(--next-tint);
}
</style>
