import { computed, ref, type Ref } from 'vue'
import { answer, client } from '../../api/client'
import { useTune } from '../../document/tune'
import { usePlayer } from '../../sound/player'
import type { TakesWork } from './work'

/** How the take that is chosen is heard: from a note on, at half speed, with the band; and its bars again. */
export function useHearing(audio: Readonly<Ref<HTMLAudioElement | null>>, work: TakesWork) {
  const tune = useTune()
  const player = usePlayer()
  const { chosen, verdict } = work
  const half = ref(false)
  const hasSound = computed(() => Boolean(chosen.value?.sound))
  /** Hears the take from a little before an event of the tab, or from its beginning. */
  function hear(event?: number) {
    const element = audio.value
    if (!element || !hasSound.value) return
    const onset = verdict.value?.heard.find((h) => h.event === event)?.onset ?? 0
    element.currentTime = Math.max(0, onset - 0.4)
    element.playbackRate = half.value ? 0.5 : 1
    void element.play().catch(tune.tell)
  }
  /**
   * Hears the take beside the band: the band begins, and the take is set to where the band is; both go to the ear by one
   * way. The take's tempo must be the tune's.
   */
  async function hearBesideBand() {
    const element = audio.value
    const take = chosen.value
    if (!element || !take || !hasSound.value) return
    const kept = await answer(client.GET('/api/takes/{id}', { params: { path: { id: take.id } } }))
    player.setSpeed(((kept.speed ?? 100) * kept.chart.tempo) / (tune.chart?.tempo ?? kept.chart.tempo))
    void player.playTune(kept.from || 1)
    element.playbackRate = 1
    half.value = false
    let steady = 0
    const timer = setInterval(() => {
      const sent = player.sent()
      if (player.state === 'silent') {
        clearInterval(timer)
        return element.pause()
      }
      if (!sent) return
      const { performance } = sent.chunk
      const perTick = 60 / (performance.tempo * performance.beatTicks) / (player.speed / 100)
      const due = kept.start + (kept.delay ?? 0) / 1000 + (sent.tick - performance.countIn) * perTick
      if (due < 0 || sent.chunk.pass?.place.chorus) return
      if (element.paused) void element.play().catch(tune.tell)
      // Set right until it runs with the band.
      if (Math.abs(element.currentTime - due) > 0.03) element.currentTime = due
      else if (++steady > 20) clearInterval(timer)
    }, 50)
  }
  /** Hears the line that was meant, with the band. */
  async function hearPlan() {
    const take = chosen.value
    if (!take) return
    const kept = await answer(client.GET('/api/takes/{id}', { params: { path: { id: take.id } } }))
    const { chart, plan } = kept
    if (!plan?.events.length) return
    audio.value?.pause()
    await player.play({
      chart,
      from: 1,
      countIn: 1,
      line: { start: 0, meter: plan.meter, events: plan.events },
    })
  }
  /** Plays bars of the take, counted on through its choruses, again and again. */
  function practiseBars({ from: first, to: last }: { from: number; to: number }) {
    const bars = tune.read?.facts.bars ?? 1
    const inChorus = (bar: number) => ((bar - 1) % bars) + 1
    void player.loopBars(inChorus(first), Math.max(inChorus(first), inChorus(last)))
    void player.playTune(inChorus(first))
  }
  function toggleHalf() {
    half.value = !half.value
    if (audio.value) audio.value.playbackRate = half.value ? 0.5 : 1
  }

  return { half, hasSound, hear, hearBesideBand, hearPlan, practiseBars, toggleHalf }
}
