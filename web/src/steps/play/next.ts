import type { Pass, StageNext } from '../../api/client'
import type { BeatMark } from '../../sound/transport'

/** What comes next, and in how many counted beats. */
export interface NextChord extends StageNext {
  beats: number
}

/** Which chord of a pass holds at a tick of its performance; before the first it is the first. */
export const chordAt = ({ stage }: Pass, tick: number): number =>
  Math.max(
    stage.findLastIndex((span) => span.tick <= tick),
    0,
  )

/** What comes after a chord of a pass, as the server says it: of what will sound, loops and keys counted in. */
export function nextChord(pass: Pass, index: number, beat: BeatMark | undefined): NextChord | undefined {
  const now = pass.stage[index]
  const next = now?.next
  if (!now || !next) return undefined
  const from = beat && beat.tick >= now.tick ? beat.tick : now.tick
  return { ...next, beats: pass.performance.beats.filter((b) => b.tick >= from && b.tick < next.tick).length }
}
