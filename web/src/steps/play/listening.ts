import { computed, onBeforeUnmount, shallowRef, watch, type Ref } from 'vue'
import { answer, client, type Pass, type TakeVerdict } from '../../api/client'
import { useTune } from '../../document/tune'
import { followPasses, type HeardPass } from '../../sound/barone'
import { useInputChoice } from '../../sound/inputchoice'
import { useListening } from '../../sound/listening'
import { usePlayer } from '../../sound/player'
import { useRecording } from '../../sound/recording'

/** How long after the player's bars it is asked what was heard in them, in ms: the last note may still go on. */
const settles = 700
/** How many seconds before a bar a note may begin and belong to it. */
const pickup = 0.3

/** While Play listens: what is played lights up, and what was played in one's own bars of a trade is judged. */
export function useStageListening(pass: Ref<Pass | undefined>) {
  const tune = useTune()
  const player = usePlayer()
  const recording = useRecording()
  const input = useInputChoice()
  const listening = useListening(() => {})

  /** What was said of the bars that were the player's last, and which those were. */
  const traded = shallowRef<{ from: number; to: number; verdict: TakeVerdict }>()
  let passes: HeardPass[] = []
  let unfollow = () => {}
  watch([listening.listens, () => player.tuneSounds], ([listens, sounds]) => {
    unfollow()
    passes = []
    if (!sounds) return
    traded.value = undefined
    if (listens) unfollow = followPasses(player, recording.soundSeconds, (heard) => (passes = heard))
  })
  onBeforeUnmount(() => unfollow())

  /** The player's bars that sound now, and when they began in what is heard. */
  const yours = computed(() => {
    const bar = player.tuneSounds ? player.bar : undefined
    return bar ? pass.value?.yours.find((b) => bar >= b.from && bar <= b.to) : undefined
  })
  /** The pass that they are bars of. */
  let during: HeardPass | undefined
  watch(yours, (now, before) => {
    // The readings may have reached the next pass already when the bars at the end of one are over.
    if (before && during && listening.listens.value) void judge(before, during)
    during = now ? passes.at(-1) : undefined
  })
  /** At which seconds of what comes in some bars of a pass begin and end, the delay of the input left out. */
  function secondsOf({ start, perTick, chunk }: HeardPass, bars: { from: number; to: number }) {
    const { beats, countIn, end } = chunk.performance
    const first = beats.find((beat) => beat.bar === bars.from)?.tick ?? countIn
    const after = beats.find((beat) => beat.bar > bars.to)?.tick ?? end
    return { began: start + (first - countIn) * perTick, over: start + (after - countIn) * perTick }
  }

  async function judge(bars: { from: number; to: number }, during: HeardPass) {
    const played = during.chunk.pass
    if (!played) return
    const { began, over } = secondsOf(during, bars)
    await new Promise((done) => setTimeout(done, settles))
    const late = input.delay() / 1000
    try {
      const notes = await recording.notesBetween(began - pickup + late, over + late)
      const body = {
        ...listening.draft(),
        ...{ chart: { ...tune.chart!, ...played.chart, title: tune.chart!.title }, speed: during.speed },
        ...{ start: during.start, delay: input.delay(), notes: notes.map(({ note }) => note) },
      }
      const verdict = await answer(client.POST('/api/compute/take/verdict', { body }))
      traded.value = { from: bars.from, to: bars.to, verdict }
    } catch (error) {
      tune.tell(error)
    }
  }
  return { listening, traded }
}
