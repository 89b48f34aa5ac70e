import { onBeforeUnmount, onMounted } from 'vue'
import { holdPage } from '../document/drafts'
import { anythingUnsaved, saveAll } from '../document/unsaved'
import { useRecording } from '../sound/recording'

/**
 * Sees to it that nothing is lost when the page is left: what is not saved is saved at
 * once where it can be, and where it cannot the browser asks before it leaves.
 */
export function useLeaving() {
  void holdPage()
  const recording = useRecording()
  function ask(event: BeforeUnloadEvent) {
    const records = recording.recordsNow || recording.state === 'keeping'
    if (!records && !anythingUnsaved()) return
    void saveAll()
    event.preventDefault()
  }
  function hide() {
    if (document.visibilityState === 'hidden') void saveAll()
  }
  onMounted(() => {
    window.addEventListener('beforeunload', ask)
    document.addEventListener('visibilitychange', hide)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('beforeunload', ask)
    document.removeEventListener('visibilitychange', hide)
  })
}
