<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'

const tune = useTune()
const router = useRouter()
const fresh = reactive({
  title: '',
  tonic: 'A',
  scheme: tune.choices?.schemes[0]?.name ?? '',
  mode: 'major',
  bars: 12,
  tempo: 100,
  meter: tune.choices?.meters[0] ?? '',
  feel: 'shuffle',
})
const problem = ref('')

const none = 'empty bars'
const forms = computed(() => [...(tune.choices?.schemes ?? []).map((s) => s.name), none])
const scheme = computed(() => tune.choices?.schemes.find((s) => s.name === fresh.scheme))
const mode = computed(() => scheme.value?.mode ?? fresh.mode)
const tonics = computed(() => tune.choices?.tonics[mode.value] ?? [])
// A tonic of one mode may not be one of another.
watch(tonics, (all) => {
  if (!all.includes(fresh.tonic)) fresh.tonic = all[0] ?? ''
})

async function make() {
  try {
    const { mode: own, bars, scheme: name, ...rest } = fresh
    const id = await tune.create(scheme.value ? { ...rest, scheme: name } : { ...rest, mode: own, bars })
    await router.push({ name: 'chart', params: { id } })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
</script>

<template>
  <form @submit.prevent="make">
    <label
      >Title
      <InputText v-model="fresh.title" :autofocus="!tune.list.length" placeholder="A name for the tune"
    /></label>
    <label>
      Form
      <Select v-model="fresh.scheme" :options="forms" aria-label="Form" scroll-height="24rem" />
    </label>
    <label v-if="!scheme">
      Bars
      <InputNumber
        v-model="fresh.bars"
        :min="tune.choices?.bars.least"
        :max="tune.choices?.bars.most"
        aria-label="Bars"
      />
    </label>
    <label>
      Key
      <span class="two">
        <Select
          v-model="fresh.tonic"
          :options="tonics"
          :option-label="signs"
          aria-label="Key"
          scroll-height="24rem"
        />
        <Select v-if="!scheme" v-model="fresh.mode" :options="tune.choices?.modes" aria-label="Mode" />
        <span v-else class="quiet">{{ mode }}</span>
      </span>
    </label>
    <label>
      Meter
      <Select v-model="fresh.meter" :options="tune.choices?.meters" aria-label="Meter" />
    </label>
    <label>
      Feel
      <Select v-model="fresh.feel" :options="tune.choices?.feels" aria-label="Feel" />
    </label>
    <label>
      Tempo
      <InputNumber
        v-model="fresh.tempo"
        :min="tune.choices?.tempo.least"
        :max="tune.choices?.tempo.most"
        aria-label="Tempo"
      />
    </label>
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <Button type="submit" label="Start the tune" />
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.65rem;
  width: 100%;
}
label {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr);
  align-items: center;
}
@container main (max-width: 22rem) {
  label {
    grid-template-columns: minmax(0, 1fr);
  }
}
.two {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
}
.problem {
  color: var(--next);
}
</style>
