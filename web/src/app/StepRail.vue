<script setup lang="ts">
import AppIcon from '../controls/AppIcon.vue'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useHands } from '../document/hands'
import { night, toggleNight } from '../controls/night'
import { useKeys } from '../controls/keys'
import { steps } from '../address/view'

defineEmits<{ keys: []; hands: [] }>()
const hands = useHands()
const route = useRoute()
const router = useRouter()
const inTune = computed(() => route.params.id !== undefined)
const to = (name: string) => ({ name, params: route.params, query: route.query })

useKeys(
  steps.map((step) => ({
    key: step.key,
    says: step.title,
    run: () => {
      if (inTune.value) void router.push(to(step.name))
    },
  })),
)
</script>

<template>
  <nav aria-label="Steps" :class="{ outside: !inTune }">
    <RouterLink class="name" to="/">undaris</RouterLink>
    <template v-if="inTune">
      <RouterLink v-for="step in steps" :key="step.name" class="step" :to="to(step.name)">
        <span class="number">{{ step.key }}</span>
        <span>{{ step.title }}</span>
      </RouterLink>
    </template>
    <span class="space" />
    <button
      type="button"
      class="plain hands"
      aria-label="Neck and hands"
      title="Neck and hands (g)"
      @click="$emit('hands')"
    >
      <AppIcon name="sliders" />
      <span v-if="hands.player.instrument">{{ hands.player.instrument.name }}</span>
    </button>
    <RouterLink class="plain" to="/data" aria-label="Your data" title="Your data: backups, in and out">
      <AppIcon name="database" />
    </RouterLink>
    <button type="button" class="plain" :aria-label="night ? 'Day look' : 'Night look'" @click="toggleNight">
      <AppIcon :name="night ? 'sun' : 'moon'" />
    </button>
    <button type="button" class="plain" @click="$emit('keys')">? keys</button>
  </nav>
</template>

<style scoped>
nav {
  position: sticky;
  top: 0;
  height: 100vh;
  width: 84px;
  flex: none;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  padding: 16px 8px 10px;
  overflow-y: auto;
  background: var(--shade);
}
a {
  color: inherit;
  text-decoration: none;
}
.name {
  font-weight: 750;
  margin-bottom: 10px;
}
.step {
  width: 100%;
  padding: 6px 0;
  border-radius: 9px;
  border-left: 4px solid transparent;
  text-align: center;
  color: var(--stone);
  display: flex;
  flex-direction: column;
}
.step span:last-child {
  font-size: 0.92rem;
}
.step .number {
  font-size: 1.15rem;
  font-weight: 650;
}
.step.router-link-active {
  background: var(--card);
  border-left-color: var(--now);
  color: var(--ink);
  font-weight: 650;
}
.space {
  flex: 1;
}
.plain {
  border: 0;
  background: none;
  color: var(--stone);
  cursor: pointer;
  padding: 6px 8px;
  border-radius: 6px;
  display: inline-flex;
  align-items: center;
  justify-content: center;
}
.hands {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  max-width: 100%;
  overflow-wrap: anywhere;
  font-size: 0.82rem;
}
.plain .app-icon {
  font-size: 1.05rem;
}
.plain:hover {
  color: var(--ink);
}
/* Held upright the steps stand below, under the thumb. */
@media (max-width: 900px) {
  nav {
    position: fixed;
    top: auto;
    bottom: 0;
    left: 0;
    right: 0;
    z-index: 5;
    width: auto;
    height: 58px;
    flex-direction: row;
    justify-content: space-around;
    gap: 0;
    overflow: visible;
    padding: 4px max(4px, env(safe-area-inset-left)) calc(4px + env(safe-area-inset-bottom));
    border-top: 1px solid var(--line);
  }
  .name,
  .space,
  .step .number,
  .hands span {
    display: none;
  }
  .step {
    width: auto;
    min-width: 44px;
    min-height: 44px;
    padding: 4px 4px;
    justify-content: center;
    border-left: 0;
    border-bottom: 4px solid transparent;
    font-size: 0.95rem;
  }
  .step.router-link-active {
    border-bottom-color: var(--now);
  }
  .plain {
    min-width: 40px;
    min-height: 44px;
    padding: 4px;
  }
}
@media (max-width: 600px) {
  .step {
    font-size: 0.75rem;
    min-width: 34px;
    padding: 4px 1px;
  }
  nav:not(.outside) .plain {
    display: none;
  }
  .outside .name {
    display: block;
    margin: 0;
  }
}
</style>
