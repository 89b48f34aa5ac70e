import { maybeWhole, oneOf, place, places, text, whole } from '../../address/query'
import { useQuery } from '../../address/useQuery'

/** What the bench of the Change step shows. */
export const benches = [
  { name: 'moves', title: 'Ways across' },
  { name: 'path', title: 'Target path' },
  { name: 'bends', title: 'Bends' },
  { name: 'count', title: 'Count back' },
  { name: 'box', title: 'Your box' },
] as const

/** How approaches are sorted: easiest, shortest, or strongest pull first. */
export const sorts = ['ease', 'tension', 'length'] as const

/** What the notes of a run between two places are taken from. */
export const walks = ['box', 'scale of the chord', 'chord tones'] as const

/** What the Change step keeps in the address. */
export const useChangeQuery = () =>
  useQuery('change', {
    bench: oneOf(['moves', 'path', 'bends', 'count', 'box']),
    sort: oneOf(sorts),
    /** The place the player is at. */
    here: place(),
    /** How many beats a connector runs. */
    beats: maybeWhole(1, 12),
    /** How many notes a run has, the beat it lands on, a tempo to work up to, its notes. */
    notes: whole(1, 9999, 8),
    beat: maybeWhole(1, 12),
    goal: maybeWhole(20, 400),
    walk: oneOf(walks),
    /** The fretted notes that follow the chords by their bends. */
    places: places(),
    /** Landings of the path that are held to a place: tick@string:fret. */
    pins: text(),
  })
