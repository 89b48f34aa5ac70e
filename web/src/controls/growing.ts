import { computed, ref, watch, type ComputedRef, type WatchSource } from 'vue'

/** Runs something after the next frame has been painted; in a page nobody sees, soon. */
export function afterPaint(run: () => void) {
  let done = false
  const once = () => {
    if (done) return
    done = true
    run()
  }
  requestAnimationFrame(() => setTimeout(once))
  setTimeout(once, 200)
}

/**
 * A long list of which the first rows come at once, in the frame that shows what else has changed, and the rest after it
 * was painted: what is out of sight keeps nobody waiting.
 */
export function useGrowing<T>(list: () => T[], first: number): ComputedRef<T[]> {
  const whole = ref(true)
  let latest = 0
  watch(list as WatchSource<T[]>, (now) => {
    const mine = ++latest
    whole.value = now.length <= first
    if (!whole.value) afterPaint(() => mine === latest && (whole.value = true))
  })
  return computed(() => (whole.value ? list() : list().slice(0, first)))
}
