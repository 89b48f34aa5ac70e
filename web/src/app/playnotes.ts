import { onBeforeUnmount, watch } from 'vue'
import { answer, client } from '../api/client'
import { localTime } from '../document/clock'
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
    const body = { ...entry, began: localTime(done.began), seconds: done.seconds }
    void answer(client.POST('/api/practice/log', { body })).catch((error: unknown) => tune.tell(error))
  }
  // When the tune is left, what was played of it is noted.
  watch(
    () => [tune.id, tune.chart?.title ?? ''] as const,
    ([id], [before, title]) => id !== before && note(title, before),
  )
  onBeforeUnmount(() => note(tune.chart?.title ?? '', tune.id))
}
