import { onBeforeUnmount, onMounted, watch } from 'vue'
import { localTime } from '../document/clock'
import { noteDown, pendingLog } from '../document/pendinglog'
import { PlayedTime } from '../document/playlog'
import { useSession } from '../document/session'
import { useTune } from '../document/tune'
import { usePlayer } from '../sound/player'

/** Notes down in the log how long a tune was played, and how fast, while no session does. */
export function usePlayNotes() {
  const tune = useTune()
  const player = usePlayer()
  const session = useSession()
  const played = new PlayedTime()
  let tempo = 0

  watch(
    () => player.tuneSounds,
    (sounds) => {
      if (!sounds) return played.stop(performance.now())
      played.start(performance.now())
    },
  )
  watch(
    () => player.tempo,
    (now) => player.tuneSounds && (tempo = Math.max(tempo, now)),
  )
  function note(title: string, id: number) {
    const done = played.take(performance.now())
    const reached = tempo || player.tempo
    tempo = 0
    // A session notes its blocks down itself.
    if (!done || session.kept || !title) return
    const entry = { kind: 'tune' as const, item: title, itemId: id, tempo: reached }
    void noteDown({ ...entry, began: localTime(done.began), seconds: done.seconds })
  }
  // When the tune is left, what was played of it is noted.
  watch(
    () => [tune.id, tune.chart?.title ?? ''] as const,
    ([id], [before, title]) => id !== before && note(title, before),
  )
  const noteNow = () => note(tune.chart?.title ?? '', tune.id)
  // A page that is closed has no time to send: what is noted then waits for the next one.
  onMounted(() => {
    void pendingLog.flush()
    window.addEventListener('pagehide', noteNow)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('pagehide', noteNow)
    noteNow()
  })
}
