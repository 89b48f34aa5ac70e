import type { Question } from '../../api/client'
import { useTune } from '../../document/tune'
import { usePlayer } from '../../sound/player'

const ticksPerBeat = 480

/** Sounds what a question is to be answered by ear: chords strummed, then notes, without the band. */
export function useHearing() {
  const tune = useTune()
  const player = usePlayer()
  return (question: Question | undefined) => {
    const chart = tune.music
    if (!chart || !question?.heard.length) return
    const { band } = question
    if (band) {
      const bars = band.chords.map((chord) => ({ chords: [{ chord, beats: 4 }] }))
      const plain = { title: 'by ear', meter: '4/4', feel: 'shuffle', swing: 2, tempo: 112 }
      void player.show({
        chart: { ...plain, key: band.key, bars },
        from: band.from,
        bars: band.bars,
        countIn: 0,
      })
      return
    }
    let tick = 0
    const events = question.heard.flatMap((sound) => {
      const at = tick
      tick += sound.beats * ticksPerBeat
      return sound.places.map((place) => ({ ...place, tick: at, ticks: sound.beats * ticksPerBeat - 60 }))
    })
    void player.show({
      chart: { ...chart, meter: '4/4', feel: 'straight', tempo: 90 },
      ...{ from: 1, bars: Math.ceil(tick / (4 * ticksPerBeat)), countIn: 0 },
      line: { start: 0, meter: '4/4', events },
      silent: ['click', 'drums', 'bass', 'chords'],
    })
  }
}
