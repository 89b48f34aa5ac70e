import { ref, watch, type Ref } from 'vue'

/**
 * Keeps the screen awake while something holds, where the browser allows it: only pages from
 * this machine or over TLS may.
 */
export function useWakeLock(wanted: Ref<boolean>) {
  /** Whether the screen is kept awake; undefined while it need not be. */
  const held = ref<boolean>()
  let lock: WakeLockSentinel | undefined

  async function take() {
    try {
      const got = await navigator.wakeLock.request('screen')
      if (!wanted.value) return void got.release()
      lock = got
      held.value = true
    } catch {
      // Not allowed here, or not known to the browser.
      if (wanted.value) held.value = false
    }
  }
  watch(wanted, (now) => {
    if (now) return void take()
    void lock?.release()
    lock = undefined
    held.value = undefined
  })
  // A page that was not looked at has lost it.
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible' && wanted.value) void take()
  })
  return { held }
}
