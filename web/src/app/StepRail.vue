<script setup lang="ts">
import AppIcon from '../controls/AppIcon.vue'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useHands } from '../document/hands'
import { large, toggleLarge } from '../controls/large'
import { night, toggleNight } from '../controls/night'
import { useKeys } from '../controls/keys'
import { steps } from '../address/view'
import { useRecording } from '../sound/recording'

defineEmits<{ keys: []; hands: []; words: [] }>()
const hands = useHands()
const recording = useRecording()
const route = useRoute()
const router = useRouter()
const inTune = computed(() => route.params.id !== undefined)
const to = (name: string) => ({ name, params: route.params, query: route.query })
// What is looked at is in the address, which changes with every key: a link has it when it is about to be followed.
const plain = (name: string) => router.resolve({ name, params: { id: route.params.id } }).href
const whole = (event: Event, name: string) =>
  ((event.currentTarget as HTMLAnchorElement).href = router.resolve(to(name)).href)
function go(event: MouseEvent, name: string) {
  if (event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return
  event.preventDefault()
  router.push(to(name)).catch(() => {}) // what could not be loaded is told by the router
}

// Where the row of steps is swiped, the step that is open is in sight.
const rail = ref<HTMLElement>()
watch(
  () => route.name,
  async () => {
    await nextTick()
    rail.value?.querySelector('.router-link-active')?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  },
  { immediate: true },
)

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
  <nav ref="rail" aria-label="Steps" :class="{ outside: !inTune }">
    <RouterLink class="name" to="/">undaris</RouterLink>
    <template v-if="inTune">
      <a
        v-for="step in steps"
        :key="step.name"
        class="step"
        :class="{ 'router-link-active': route.name === step.name }"
        :aria-current="route.name === step.name ? 'page' : undefined"
        :href="plain(step.name)"
        @pointerenter="whole($event, step.name)"
        @focus="whole($event, step.name)"
        @click="go($event, step.name)"
      >
        <span class="number">{{ step.key }}</span>
        <span>{{ step.title }}</span>
        <span
          v-if="step.name === 'takes' && recording.recordsNow"
          class="records"
          title="A take is being recorded"
        >
          <span class="spoken">a take is being recorded</span>
        </span>
      </a>
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
    <button
      type="button"
      class="plain"
      :aria-pressed="large"
      aria-label="Larger"
      title="Everything larger, to be read from further away (F4)"
      @click="toggleLarge"
    >
      <span class="size" aria-hidden="true">A<b>A</b></span>
    </button>
    <button
      type="button"
      class="plain"
      title="What the words on the screen mean (F1)"
      @click="$emit('words')"
    >
      words
    </button>
    <button type="button" class="plain" title="All keys (?)" @click="$emit('keys')">? keys</button>
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
.records {
  align-self: center;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  background: var(--next);
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
.size {
  font-size: 0.85rem;
}
.size b {
  font-size: 1.25rem;
}
.plain[aria-pressed='true'] {
  color: var(--now);
}
.plain .app-icon {
  font-size: 1.05rem;
}
.plain:hover {
  color: var(--ink);
}
/* Where the page is narrow the steps stand in a row below, under the thumb, and can be swiped. */
@container page (max-width: 60rem) {
  nav {
    order: 2;
    top: auto;
    bottom: 0;
    z-index: 5;
    width: 100%;
    height: auto;
    flex-direction: row;
    gap: 2px;
    overflow: auto hidden;
    scrollbar-width: none;
    padding: 4px max(6px, env(safe-area-inset-left)) calc(4px + env(safe-area-inset-bottom));
    border-top: 1px solid var(--line);
  }
  .name {
    margin: 0;
    padding: 10px 8px;
  }
  nav:not(.outside) .name,
  .step .number,
  .hands span {
    display: none;
  }
  .step {
    flex: none;
    width: auto;
    min-width: 48px;
    min-height: 46px;
    padding: 4px 6px 0;
    justify-content: center;
    border-left: 0;
    border-bottom: 4px solid transparent;
  }
  .step.router-link-active {
    border-bottom-color: var(--now);
  }
  .plain {
    flex: none;
    min-width: 44px;
    min-height: 46px;
    white-space: nowrap;
  }
}
</style>
