import { ref, watchEffect } from 'vue'

const remembered = localStorage.getItem('undaris.night')

/** Whether the night look is on: the player's choice, else the system's. */
export const night = ref(
  remembered === null ? matchMedia('(prefers-color-scheme: dark)').matches : remembered === 'yes',
)

watchEffect(() => document.documentElement.classList.toggle('night', night.value))

export function toggleNight() {
  night.value = !night.value
  localStorage.setItem('undaris.night', night.value ? 'yes' : 'no')
}
