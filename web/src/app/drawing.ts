import { ref, type Ref } from 'vue'

interface Bars {
  from: number
  to: number
}

/** Bars of the form that are drawn over with the mouse or a finger, to be looped. */
export function useBarDrawing(strip: Ref<HTMLElement | undefined>, loop: (from: number, to: number) => void) {
  const drawn = ref<Bars>()
  const dragged = ref(false)

  const barAt = (event: PointerEvent) => {
    const under = document.elementFromPoint(event.clientX, event.clientY)
    const bar = under?.closest<HTMLElement>('[data-bar]')
    return bar && strip.value?.contains(bar) ? Number(bar.dataset.bar) : undefined
  }
  function press(event: PointerEvent) {
    const bar = event.button === 0 ? barAt(event) : undefined
    dragged.value = false
    drawn.value = bar ? { from: bar, to: bar } : undefined
  }
  function drag(event: PointerEvent) {
    const bar = drawn.value && barAt(event)
    if (!drawn.value || !bar || bar === drawn.value.to) return
    drawn.value = { ...drawn.value, to: bar }
    dragged.value = true
  }
  function release() {
    const bars = ordered(drawn.value)
    drawn.value = undefined
    if (dragged.value && bars) loop(bars.from, bars.to)
    // The click that ends a drag comes first; one by keys comes without a press.
    setTimeout(() => (dragged.value = false))
  }
  const forget = () => (drawn.value = undefined)

  return { drawn, dragged, press, drag, release, forget }
}

/** Some bars from the first to the last, whichever way they were drawn. */
export const ordered = (bars: Bars | undefined): Bars | undefined =>
  bars && { from: Math.min(bars.from, bars.to), to: Math.max(bars.from, bars.to) }
