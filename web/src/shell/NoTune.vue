<script setup lang="ts">
import { useTune } from '../tune/tune'
import { signs } from '../tune/spelling'
import NewTune from './NewTune.vue'

const tune = useTune()
</script>

<template>
  <section>
    <h1>Play through the changes</h1>
    <p class="quiet lead">
      If the band dropped out, would the notes you played still tell the listener which chord is on?
    </p>
    <div class="columns">
      <div v-if="tune.list.length" class="bench">
        <h2>Your tunes</h2>
        <ul>
          <li v-for="entry in tune.list" :key="entry.id">
            <RouterLink :to="{ name: 'map', params: { id: entry.id } }">
              <strong>{{ entry.title }}</strong>
              <span class="quiet">{{ signs(entry.key.tonic) }} · {{ entry.feel }} · {{ entry.tempo }}</span>
            </RouterLink>
          </li>
        </ul>
      </div>
      <div class="bench">
        <h2>{{ tune.list.length ? 'A new tune' : 'Start with a twelve-bar' }}</h2>
        <p v-if="!tune.list.length" class="quiet">
          Give it a name and a key; everything can be changed later.
        </p>
        <NewTune />
      </div>
    </div>
  </section>
</template>

<style scoped>
section {
  max-width: 60rem;
  padding-top: 3rem;
}
.lead {
  font-size: 1.15rem;
  margin: 0.4rem 0 1.6rem;
}
.columns {
  display: flex;
  gap: 1.4rem;
  align-items: flex-start;
  flex-wrap: wrap;
}
.bench {
  padding: 1.2rem 1.4rem;
  min-width: 24rem;
}
h2 {
  margin-bottom: 0.8rem;
}
li a {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.7rem 0.6rem;
  border-radius: 8px;
  color: inherit;
  text-decoration: none;
}
li a:hover {
  background: var(--now-tint);
}
</style>
