<script setup lang="ts">
import { computed } from 'vue'
import type { Lick } from '../api/client'
import PillSelect from '../controls/PillSelect.vue'
import { useTune } from '../document/tune'
import type { Writing } from './writing'

/** What a lick of the library is called, what it is good for, and the key it is written in. */
const props = defineProps<{ lick: Lick; writing: Writing }>()
const tune = useTune()
const tags = computed(() => props.lick.tags?.join(', ') ?? '')
const split = (text: string) => text.split(',').flatMap((tag) => tag.trim() || [])
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="line fields">
    <input
      class="name"
      :value="lick.name"
      aria-label="Name"
      maxlength="60"
      @change="writing.edit({ name: value($event) })"
    />
    <input
      class="about"
      :value="lick.about"
      aria-label="What it is good for"
      placeholder="what it is good for"
      maxlength="200"
      @change="writing.edit({ about: value($event) })"
    />
    <input
      class="tags"
      :value="tags"
      aria-label="Tags"
      placeholder="tags, separated by commas"
      @change="writing.edit({ tags: split(value($event)) })"
    />
    <span class="quiet">in</span>
    <PillSelect
      label="Key of the lick"
      :chosen="lick.tonic"
      :options="(tune.choices?.tonics.dominant ?? []).map((t) => ({ value: t, text: t }))"
      @choose="(one) => writing.edit({ tonic: one })"
    />
    <PillSelect
      v-if="!lick.events.length"
      label="Meter of the lick"
      :chosen="lick.meter"
      :options="(tune.choices?.meters ?? []).map((m) => ({ value: m, text: m }))"
      @choose="(one) => writing.edit({ meter: one })"
    />
  </div>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.3rem 0.55rem;
  margin-bottom: 3px;
}
input {
  font-size: 0.92rem;
}
.name {
  width: 11rem;
  font-weight: 650;
}
.about {
  flex: 1;
}
.tags {
  width: 11rem;
}
</style>
