<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { showHints } from '../../controls/hints'
import { useTune } from '../../document/tune'

/** Before there is any tune: what this is, and one press to begin. */
const tune = useTune()
const router = useRouter()
const problem = ref('')
const starting = ref(false)

async function begin() {
  starting.value = true
  problem.value = ''
  try {
    const scheme = tune.choices?.schemes[0]?.name
    const id = await tune.create({ title: 'First blues', tonic: 'A', scheme, tempo: 90, feel: 'shuffle' })
    showHints(true)
    await router.push({ name: 'map', params: { id } })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  } finally {
    starting.value = false
  }
}
</script>

<template>
  <div class="bench first">
    <p>
      Undaris shows where the tones of each chord lie on the neck, and the note to land on when it changes.
    </p>
    <p>It plays the band, plans solos from your licks, asks you what you should know, and listens to you.</p>
    <p>Begin with a twelve-bar blues in A, or write the tune you are working on.</p>
    <button type="button" class="primary" :disabled="starting" @click="begin">Begin with a blues in A</button>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.first {
  flex: 1 1 30rem;
  padding: 1.6rem 1.8rem;
  font-size: 1.15rem;
}
p {
  max-width: 36rem;
  margin-bottom: 0.7rem;
}
.primary {
  margin-top: 0.4rem;
  padding: 0.7rem 1.8rem;
}
.problem {
  margin-top: 0.8rem;
  color: var(--next);
}
</style>
