import { flag, oneOf, text } from '../../address/query'
import { useQuery } from '../../address/useQuery'

/** What can be laid over a chord. An arpeggio is held by its chord. */
export const overlays = [
  { name: 'box', title: 'box' },
  { name: 'blend', title: 'blend' },
  { name: 'scale', title: 'scale' },
  { name: 'extensions', title: 'extensions' },
  { name: 'next', title: 'next chord' },
  { name: 'none', title: 'nothing' },
] as const

export const labels = ['interval', 'note', 'degree of the key', 'finger'] as const

/** What the Map step keeps in the address. */
export const useMapQuery = () =>
  useQuery('map', {
    bench: oneOf(['box', 'chords', 'arpeggios', 'scales', 'smaller', 'paper']),
    /** What is laid over the chord: an overlay, or the chord of an arpeggio. */
    over: text('box'),
    label: oneOf(labels),
    /** The degrees that are hidden, apart by blanks. */
    hide: text(),
    layout: text(),
    /** The smaller structure that is chosen. */
    small: text(),
    /** Take each chord at its own place; show the whole neck; the placing within the span. */
    slide: flag(),
    full: flag(),
    easier: flag(),
  })
