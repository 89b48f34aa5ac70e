import { ref } from 'vue'

const apart = ({ touches: [a, b] }: TouchEvent) =>
  a && b ? Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY) : 0

/**
 * How far two fingers have spread what they lie on: 1 at first, and never outside the limits. One
 * finger swipes as everywhere.
 */
export function usePinch(limits: { least: number; most: number }) {
  const spread = ref(1)
  let begun: { apart: number; spread: number } | undefined

  function start(event: TouchEvent) {
    begun = event.touches.length === 2 ? { apart: apart(event), spread: spread.value } : undefined
  }
  function follow(event: TouchEvent) {
    if (!begun || event.touches.length !== 2) return
    event.preventDefault()
    spread.value = Math.min(limits.most, Math.max(limits.least, (begun.spread * apart(event)) / begun.apart))
  }
  return { spread, start, follow }
}
