<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'

const emit = defineEmits<{ made: [] }>()
const tune = useTune()
const router = useRouter()
const fresh = reactive({ title: '', tonic: 'A', scheme: 'quick change', tempo: 100, feel: 'shuffle' })
const problem = ref('')

async function make() {
  try {
    const id = await tune.create(fresh)
    emit('made')
    await router.push({ name: 'map', params: { id } })
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
      Key
      <Select v-model="fresh.tonic" :options="tune.choices?.tonics" :option-label="signs" aria-label="Key" />
    </label>
    <label>
      Twelve-bar
      <Select v-model="fresh.scheme" :options="tune.choices?.schemes" aria-label="Twelve-bar" />
    </label>
    <label>
      Feel
      <Select v-model="fresh.feel" :options="tune.choices?.feels" aria-label="Feel" />
    </label>
    <label>
      Tempo
      <InputNumber v-model="fresh.tempo" :min="tune.choices?.tempo.least" :max="tune.choices?.tempo.most" />
    </label>
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <Button type="submit" label="Start the tune" />
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.8rem;
  width: 22rem;
}
label {
  display: grid;
  grid-template-columns: 7rem 1fr;
  align-items: center;
}
.problem {
  color: var(--next);
}
</style>
