import { onBeforeUnmount, onMounted, ref } from 'vue'

/** How wide the page is, in px. */
export function useWindowWidth() {
  const width = ref(window.innerWidth)
  const measure = () => (width.value = window.innerWidth)
  onMounted(() => window.addEventListener('resize', measure))
  onBeforeUnmount(() => window.removeEventListener('resize', measure))
  return width
}
