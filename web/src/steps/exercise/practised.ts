import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { localTime } from '../../document/clock'
import { noteDown } from '../../document/pendinglog'
import { PlayedTime } from '../../document/playlog'
import { useSession } from '../../document/session'
import { usePlayer } from '../../sound/player'
import type { ExerciseQuery } from './address'
import type { ExerciseWork } from './work'

/** Notes down in the log how long an exercise was played, and the tempo at which it was clean. */
export function usePractised(work: ExerciseWork, query: ExerciseQuery) {
  const player = usePlayer()
  const session = useSession()
  const played = new PlayedTime()
  const sounds = computed(() => !player.silent && !player.tuneSounds)
  /** The tempo that was noted as clean last. */
  const clean = ref(0)

  watch(sounds, (now) => (now ? played.start(performance.now()) : played.stop(performance.now())))
  const name = computed(() => work.exercise.value?.name || work.written.value?.text || '')

  function entry(began: Date, seconds: number) {
    return {
      ...{ kind: 'exercise' as const, item: name.value, itemId: query.id.value },
      ...{ began: localTime(began), seconds },
    }
  }
  /** Notes down that it was clean at the tempo it is played at. */
  async function wasClean() {
    if (!player.tempo || !name.value) return
    const { began, seconds } = played.take(performance.now()) ?? { began: new Date(), seconds: 0 }
    clean.value = player.tempo
    if (sounds.value) played.start(performance.now())
    await noteDown({ ...entry(began, seconds), tempo: player.tempo, went: 'clean' })
  }
  /** What was played is noted when the exercise is left; a session notes its blocks down itself. */
  function note() {
    const done = played.take(performance.now())
    clean.value = 0
    if (done && !session.kept && name.value) void noteDown(entry(done.began, done.seconds))
  }
  watch(() => query.id.value, note)
  onMounted(() => window.addEventListener('pagehide', note))
  onBeforeUnmount(() => {
    window.removeEventListener('pagehide', note)
    note()
  })
  return { clean, wasClean }
}
