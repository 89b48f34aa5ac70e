import { computed, onBeforeUnmount } from 'vue'
import type { LiveNote } from '../api/client'
import { useView } from '../address/view'
import { useTune } from '../document/tune'
import { useInputChoice } from './inputchoice'
import { useRecording } from './recording'

/** Listens to the input that is chosen while a step is shown: what is played is heard and not kept. */
export function useListening(struck: (stroke: LiveNote) => void) {
  const recording = useRecording()
  const input = useInputChoice()
  const tune = useTune()
  const view = useView()
  const listens = computed(() => recording.state === 'hearing')

  /** What the server is told of what is heard: on which instrument. */
  const draft = () => ({
    ...{ name: 'heard', began: new Date().toISOString(), chart: tune.music!, hands: tune.hands },
    ...{ position: view.position.value?.id, start: 0, notes: [] },
    source: input.isKeys() ? ('midi' as const) : ('microphone' as const),
  })
  async function start() {
    if (tune.music) await recording.begin(input.open, draft(), tune.id, false, struck)
  }
  const stop = () => void (listens.value && recording.cancel())
  const toggle = () => (listens.value ? stop() : void start())
  onBeforeUnmount(stop)

  return { listens, draft, start, stop, toggle }
}
export type Listening = ReturnType<typeof useListening>
