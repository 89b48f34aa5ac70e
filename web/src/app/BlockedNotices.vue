<script setup lang="ts">
import { computed } from 'vue'
import { Kept } from '../document/kept'
import SaveNotice from '../document/SaveNotice.vue'
import { blockedElsewhere } from '../document/unsaved'

/** Documents that cannot be saved and that this view does not show: told wherever the player is. */
const blocked = computed(() => blockedElsewhere().filter((one) => one instanceof Kept))
</script>

<template>
  <SaveNotice
    v-for="one in blocked"
    :key="`${one.kindName} ${one.id.value}`"
    :document="one"
    :what="one.kindName"
    elsewhere
  />
</template>
