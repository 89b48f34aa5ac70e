<script setup lang="ts">
/** The choruses of a solo: which is looked at, one more, and their order. */
defineProps<{ count: number; at: number }>()
defineEmits<{ go: [chorus: number]; more: []; whole: []; move: [by: number]; remove: [] }>()
</script>

<template>
  <span class="choruses" role="group" aria-label="Choruses">
    <button
      v-for="n in count"
      :key="n"
      type="button"
      class="chip"
      :aria-pressed="n - 1 === at"
      :aria-label="`Chorus ${n}`"
      @click="$emit('go', n)"
    >
      {{ n }}
    </button>
    <button v-if="count" type="button" class="chip" title="One more chorus (j)" @click="$emit('more')">
      + chorus
    </button>
    <button
      v-if="count"
      type="button"
      class="chip"
      :title="
        count > 1
          ? 'Plan all choruses anew as one solo: it rises, and ends'
          : 'Plan three choruses as one solo: it rises, and ends'
      "
      @click="$emit('whole')"
    >
      {{ count > 1 ? 'plan as one' : 'plan three as one' }}
    </button>
    <template v-if="count > 1">
      <button
        type="button"
        class="chip"
        aria-label="Chorus earlier"
        title="This chorus earlier"
        @click="$emit('move', -1)"
      >
        ←
      </button>
      <button
        type="button"
        class="chip"
        aria-label="Chorus later"
        title="This chorus later"
        @click="$emit('move', 1)"
      >
        →
      </button>
      <button
        type="button"
        class="chip"
        aria-label="Remove the chorus"
        title="Remove this chorus"
        @click="$emit('remove')"
      >
        ×
      </button>
    </template>
  </span>
</template>

<style scoped>
.choruses {
  display: flex;
  align-items: center;
  gap: 4px;
  margin-left: auto;
}
.chip {
  padding: 0.1rem 0.65rem;
  font-size: 0.9rem;
}
</style>
