<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Slider from 'primevue/slider'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { ChorusPlan } from '../../api/client'
import { named } from '../../controls/options'
import NumberField from '../../controls/NumberField.vue'
import PillSelect from '../../controls/PillSelect.vue'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'

/** What a chorus is planned by. Every choice plans it again; what is locked stays. */
const props = defineProps<{ plan: ChorusPlan; bar: number; tags: string[] }>()
const emit = defineEmits<{ plan: [change: Partial<ChorusPlan>, more?: boolean, gesture?: string] }>()

const tune = useTune()
const choices = computed(() => tune.choices)
const forms = computed(() => [...named(choices.value?.forms), { value: 'own', text: 'own letters' }])
const ownForm = ref(false)
const form = computed(() => props.plan.form || (choices.value?.forms[0] ?? ''))
const isOwn = computed(() => ownForm.value || !choices.value?.forms.includes(form.value))
function chooseForm(name: string) {
  ownForm.value = name === 'own'
  if (name !== 'own') emit('plan', { form: name })
}
const space = computed(() => props.plan.space ?? choices.value?.space ?? 0)
const density = computed(() => props.plan.density ?? choices.value?.density ?? 0)
const all = computed(() => {
  const blend = props.plan.blend ?? []
  return blend.length === 1 ? blend[0] : blend.length ? undefined : choices.value?.blend
})
/** What is being slid: it plans when it is let go, or by keys when they rest. */
const sliding = ref<{ space?: number; density?: number; blend?: number }>({})
watch(
  () => props.plan,
  () => (sliding.value = {}),
)
const resting = 400
let timer: ReturnType<typeof setTimeout> | undefined
function slide(name: 'space' | 'density' | 'blend', value: number | number[]) {
  sliding.value = { ...sliding.value, [name]: Number(value) }
  clearTimeout(timer)
  timer = setTimeout(() => settle(name), resting)
}
function settle(name: 'space' | 'density' | 'blend') {
  clearTimeout(timer)
  const to = sliding.value[name]
  if (to === undefined) return
  emit('plan', name === 'blend' ? { blend: [to] } : { [name]: to }, false, name)
}
onBeforeUnmount(() => {
  // What was slid to is planned by, even if the panel is left at once.
  for (const name of ['space', 'density', 'blend'] as const) settle(name)
})
const approaches = computed(() => props.plan.approaches ?? [])
function toggleApproach(name: string) {
  const now = approaches.value.length ? approaches.value : (choices.value?.approaches ?? [])
  const next = now.includes(name) ? now.filter((a) => a !== name) : [...now, name]
  emit('plan', { approaches: next.length === choices.value?.approaches.length ? undefined : next })
}
const allowed = (name: string) => approaches.value.length === 0 || approaches.value.includes(name)
const vocabulary = computed(() => (props.plan.fromLicks ? 'licks' : 'box'))
function toggleTag(tag: string) {
  const now = props.plan.tags ?? []
  const next = now.includes(tag) ? now.filter((t) => t !== tag) : [...now, tag]
  emit('plan', { fromLicks: true, tags: next.length ? next : undefined })
}

const positions = computed(() =>
  (tune.map?.positions ?? []).map((p) => ({ value: p.name, text: `${p.label} ${p.core}–${p.coreEnd}` })),
)
const saysPosition = (name: string) => positions.value.find((p) => p.value === name)?.text ?? name
const shifts = computed(() => props.plan.shifts ?? [])
const here = computed(() => shifts.value.find((s) => s.bar === props.bar))
function shift(position: string) {
  const others = shifts.value.filter((s) => s.bar !== props.bar)
  const next = [...others, { bar: props.bar, position }].sort((a, b) => a.bar - b.bar)
  emit('plan', { shifts: next })
}
function unshift(bar: number) {
  const next = shifts.value.filter((s) => s.bar !== bar)
  emit('plan', { shifts: next.length ? next : undefined })
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="plan">
    <div class="left">
      <div class="choices">
        <span class="what">aim at</span>
        <PillSelect
          label="Target strategy"
          :chosen="plan.strategy || choices?.strategies[0]"
          :options="named(choices?.strategies)"
          @choose="(strategy) => emit('plan', { strategy })"
        />
        <span class="quiet">in</span>
        <PillSelect
          label="Subdivision"
          :chosen="plan.subdivision || choices?.subdivision"
          :options="named(choices?.subdivisions[tune.chart?.meter ?? ''])"
          @choose="(subdivision) => emit('plan', { subdivision })"
        />
        <span class="quiet">box</span>
        <PillSelect
          label="Box of the plan"
          :chosen="plan.box || tune.read?.box"
          :options="named(choices?.boxes)"
          @choose="(box) => emit('plan', { box })"
        />
      </div>
      <div class="choices">
        <span class="what">phrases</span>
        <PillSelect
          label="Phrase plan"
          :chosen="isOwn ? 'own' : form"
          :options="forms"
          @choose="chooseForm"
        />
        <InputText
          v-if="isOwn"
          class="own"
          aria-label="Own phrase plan"
          placeholder="A B A C"
          :model-value="form"
          @change="(event: Event) => emit('plan', { form: value(event) })"
        />
        <span class="quiet">seed</span>
        <NumberField
          class="seed"
          label="Seed"
          :value="plan.seed ?? 0"
          :least="0"
          :most="999999"
          @entered="(seed) => emit('plan', { seed })"
        />
      </div>
      <label class="slider">
        <span class="what">notes a bar</span>
        <Slider
          :model-value="sliding.density ?? density"
          aria-label="Notes a bar"
          :min="1"
          :max="12"
          :step="0.5"
          @update:model-value="(v) => slide('density', v)"
          @slideend="settle('density')"
        />
        <b>{{ sliding.density ?? density }}</b>
      </label>
      <label class="slider">
        <span class="what">space</span>
        <Slider
          :model-value="sliding.space ?? space"
          aria-label="Space"
          :min="0"
          :max="choices?.maxSpace"
          :step="0.05"
          @update:model-value="(v) => slide('space', v)"
          @slideend="settle('space')"
        />
        <b>{{ Math.round((sliding.space ?? space) * 100) }} %</b>
      </label>
      <label class="slider">
        <span class="what">blend, all bars</span>
        <Slider
          :model-value="sliding.blend ?? all ?? 0.5"
          aria-label="Blend of all bars"
          :min="0"
          :max="1"
          :step="0.05"
          @update:model-value="(v) => slide('blend', v)"
          @slideend="settle('blend')"
        />
        <b>{{
          sliding.blend === undefined && all === undefined
            ? 'drawn'
            : Math.round((sliding.blend ?? all ?? 0.5) * 100)
        }}</b>
      </label>
      <div class="choices">
        <span class="what">hand</span>
        <span class="quiet">stays{{ shifts.length ? ', but' : ' in one position;' }} at bar {{ bar }}</span>
        <PillSelect
          v-if="bar > 1"
          label="Shift at this bar"
          placeholder="shift to…"
          :chosen="here?.position"
          :options="positions"
          @choose="shift"
        />
        <span v-else class="quiet">choose a later bar to shift there</span>
        <button
          v-for="s in shifts"
          :key="s.bar"
          type="button"
          class="chip"
          :aria-label="`No shift at bar ${s.bar}`"
          @click="unshift(s.bar)"
        >
          bar {{ s.bar }}: {{ saysPosition(s.position) }} ×
        </button>
      </div>
    </div>
    <div class="right">
      <div class="choices">
        <span class="what">play</span>
        <button
          type="button"
          class="chip"
          :aria-pressed="vocabulary === 'licks'"
          @click="emit('plan', { fromLicks: true })"
        >
          my licks
        </button>
        <button
          type="button"
          class="chip"
          :aria-pressed="vocabulary === 'box'"
          @click="emit('plan', { fromLicks: undefined, tags: undefined })"
        >
          the box, made up
        </button>
        <button
          type="button"
          class="chip"
          title="For stiff strings, basses and sore hands"
          :aria-pressed="plan.noBends ?? false"
          @click="emit('plan', { noBends: !plan.noBends || undefined })"
        >
          no bends
        </button>
        <span v-if="plan.fromLicks" class="quiet">{{
          plan.tags?.length ? 'only those with the tags' : 'all licks of the library'
        }}</span>
      </div>
      <div class="choices tags" role="group" aria-label="Licks with the tag">
        <button
          v-for="tag in tags"
          :key="tag"
          type="button"
          class="chip"
          :aria-pressed="plan.tags?.includes(tag) ?? false"
          @click="toggleTag(tag)"
        >
          {{ tag }}
        </button>
      </div>
      <p class="quiet ways">led into by</p>
      <div class="choices approaches">
        <button
          v-for="name in choices?.approaches"
          :key="name"
          type="button"
          class="chip"
          :aria-pressed="allowed(name)"
          @click="toggleApproach(name)"
        >
          {{ signs(name) }}
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: minmax(0, 11fr) minmax(0, 10fr);
  gap: 1.6rem;
  height: var(--panel, 19.33rem);
  overflow-y: auto;
}
.what {
  width: 6.4rem !important;
  color: var(--stone);
  font-size: 0.92rem;
}
.slider {
  display: grid;
  grid-template-columns: 6.4rem 1fr 3.6rem;
  align-items: center;
  gap: 0.9rem;
  margin: 8px 4px 12px 0;
}
.right .chip {
  padding: 0.05rem 0.55rem;
  font-size: 0.86rem;
}
.own {
  width: 8rem;
  padding: 0.2rem 0.6rem;
}
.seed {
  width: 5rem;
  padding: 0.2rem 0.6rem;
}
.ways {
  margin: 10px 0 4px;
  font-size: 0.92rem;
}
@container main (max-width: 52rem) {
  .plan {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
