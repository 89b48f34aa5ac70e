import type { Pass } from '../../api/client'
import type { BeatMark } from '../../sound/transport'

/** The chord that comes next. */
export interface NextChord {
  chord: string
  roman: string
  /** How many counted beats are left until it comes. */
  beats: number
  /** The tick of the chorus at which it comes; the top of the chorus is 0. */
  at: number
}

/**
 * The chord after the one at an index of a pass that is another than it, or the same where
 * the band rests between; after the last one the first of what follows.
 */
export function nextChord(pass: Pass, index: number, beat: BeatMark | undefined): NextChord | undefined {
  const { chords, beats, end } = pass.performance
  const now = chords[index]
  if (!now) return undefined
  const from = beat && beat.tick >= now.tick ? beat.tick : now.tick
  const left = (tick: number) => beats.filter((b) => b.tick >= from && b.tick < tick).length
  const later = chords.slice(index + 1).find((c) => c.silent !== now.silent || c.chord !== now.chord)
  if (later) {
    return {
      chord: later.silent ? 'N.C.' : later.chord,
      roman: later.silent ? '' : later.roman,
      beats: left(later.tick),
      at: later.at,
    }
  }
  if (!pass.next) return undefined
  return { ...pass.next, beats: left(end), at: 0 }
}
