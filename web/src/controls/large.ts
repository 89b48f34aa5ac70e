import { ref, watchEffect } from 'vue'

const root = document.documentElement

/** Whether everything is set larger, to be read from further away than a desk. */
export const large = ref(localStorage.getItem('undaris.large') === 'yes')

watchEffect(() => root.classList.toggle('large', large.value))

export function toggleLarge() {
  large.value = !large.value
  localStorage.setItem('undaris.large', large.value ? 'yes' : 'no')
}
