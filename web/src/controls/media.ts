import { ref, type Ref } from 'vue'

const asked = new Map<string, Ref<boolean>>()

/** Whether a media query holds; it is watched for as long as the page is open. */
export function useMedia(query: string): Ref<boolean> {
  const known = asked.get(query)
  if (known) return known
  const list = matchMedia(query)
  const holds = ref(list.matches)
  list.addEventListener('change', () => (holds.value = list.matches))
  asked.set(query, holds)
  return holds
}
