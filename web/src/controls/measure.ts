import { onBeforeUnmount, onMounted, ref, watch, type Ref } from 'vue'

/** The size of the page's text at which a drawing's units are px: 93.75 % of 16 px. */
const usualText = 15

/** How much larger the text of the page is than usual: by the player's own size, or the large look. */
function textScale() {
  const size = parseFloat(getComputedStyle(document.documentElement).fontSize)
  return size > 0 ? size / usualText : 1
}

/**
 * The width an element has for a drawing, in the drawing's own units: px at the usual size of text,
 * and fewer units where the text is larger, so that a drawing as wide as its element is enlarged
 * with the text around it. Before it is measured it is the width that is given.
 */
export function useWidth(element: Ref<Element | undefined>, before: number) {
  const width = ref(before)
  const scale = ref(1)
  const observer = new ResizeObserver((entries) => {
    const measured = entries.at(-1)?.contentRect.width ?? 0
    if (measured <= 0) return
    scale.value = textScale()
    width.value = Math.round(measured / scale.value)
  })
  watch(element, (now, was) => {
    if (was) observer.unobserve(was)
    if (now) observer.observe(now)
  })
  // The size of the text changes without the width of the element.
  const root = new MutationObserver(() => {
    const measured = element.value?.getBoundingClientRect().width ?? 0
    scale.value = textScale()
    if (measured > 0) width.value = Math.round(measured / scale.value)
  })
  onMounted(() => {
    if (element.value) observer.observe(element.value)
    root.observe(document.documentElement, { attributes: true, attributeFilter: ['class', 'style'] })
  })
  onBeforeUnmount(() => {
    observer.disconnect()
    root.disconnect()
  })
  return { width, scale }
}
