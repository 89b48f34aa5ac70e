import { ref } from 'vue'

/** The tick of the chorus where the chord stands that is heard, while the tune is played. */
export const heardAt = ref<number>()

/**
 * Whether what is shown goes along with what is heard. It does from the moment the tune is
 * played; picking something by hand ends it, until it is asked for again.
 */
export const following = ref(true)

/** The bar that was chosen by hand since the tune was played last, from 1: it begins there the next time. */
export const chosenBar = ref<number>()
