import { ref, watch } from 'vue'
import { answer, client } from '../../api/client'
import { useTune } from '../../document/tune'
import { followPasses } from '../../sound/barone'
import { useInputChoice } from '../../sound/inputchoice'
import { usePlayer } from '../../sound/player'
import { useRecording } from '../../sound/recording'
import type { TakesWork } from './work'

/** How long it is listened to after the last bar, in ms: the last note may come late, and the next bar's note early. */
const after = 250

/** Plays some bars of the chosen take again over the band: what is played takes their place. */
export function usePunch(work: TakesWork) {
  const tune = useTune()
  const player = usePlayer()
  const recording = useRecording()
  const input = useInputChoice()
  /** The bars that are played again now, as they are counted in the take. */
  const punching = ref<{ from: number; to: number }>()

  /** Begins: the band counts in and plays from the first of the bars on; after the last it ends by itself. */
  async function punch(from: number, to: number) {
    const chosen = work.chosen.value
    const bars = tune.read?.facts.bars ?? 0
    if (!chosen || !bars || recording.recordsNow) return
    if (input.isStandIn()) return void (work.refusal.value = 'Choose a real input to play bars again')
    const take = await answer(client.GET('/api/takes/{id}', { params: { path: { id: chosen.id } } }))
    const inChorus = (bar: number) => ((bar - 1) % bars) + 1
    const last = Math.min(to, from - inChorus(from) + bars)
    player.setSpeed(((take.speed ?? 100) * take.chart.tempo) / (tune.chart?.tempo ?? take.chart.tempo))
    void player.playTune(inChorus(from))
    const source = input.isKeys() ? ('midi' as const) : ('microphone' as const)
    const draft = {
      ...work.emptyDraft(source),
      chart: take.chart,
      speed: take.speed,
      from: inChorus(from),
      plan: undefined,
    }
    await recording.begin(input.open, draft, tune.id, true)
    if (recording.state !== 'recording') return void player.stop()
    punching.value = { from, to: last }
    const unfollow = followPasses(player, recording.soundSeconds, (passes) =>
      recording.startsAt(passes[0]!.start),
    )
    const stopWatching = watch([() => player.bar, () => recording.state], ([bar, state], [before]) => {
      const over = before === inChorus(last) && bar !== before
      if (!over && state === 'recording') return
      stopWatching()
      unfollow()
      setTimeout(async () => {
        if (!player.silent) void player.stop()
        punching.value = undefined
        if (recording.state !== 'recording') return
        const kept = await recording.punch({ takeId: take.id, version: take.version, from, to: last })
        if (kept) await work.list()
      }, after + input.delay())
    })
  }
  return { punching, punch }
}
