import { flag, maybeWhole, oneOf, text, whole } from '../../address/query'
import { useQuery } from '../../address/useQuery'

/** What is done with a lick, in the order of the tabs. */
export const panels = [
  { name: 'lead', title: 'Lead' },
  { name: 'write', title: 'Write' },
  { name: 'verdict', title: 'Understand' },
  { name: 'move', title: 'Every chord' },
  { name: 'variants', title: 'Variants' },
  { name: 'join', title: 'Cut and join' },
  { name: 'versions', title: 'Versions' },
] as const
export type PanelName = (typeof panels)[number]['name'] | 'import'

const newest = 1 << 30

/** What the Licks step keeps in the address. */
export const useLicksQuery = () =>
  useQuery('licks', {
    panel: oneOf(['lead', 'write', 'verdict', 'move', 'variants', 'join', 'versions', 'import']),
    /** The lick under work, by its id; none is the first. */
    lick: maybeWhole(1, newest),
    /** A lick that is not kept yet is written. */
    fresh: flag(),
    /** The kept line that is open. */
    line: maybeWhole(1, newest),
    /** The lick is set into the tune's key where the hand is; else it is taken as it is written. */
    here: flag(),
    /** What is asked of the licks that are listed. */
    find: text(),
    /** The notes that were put right, by their numbers. */
    fix: text(),
    /** The chord and the way a lick is moved: chord|way. */
    move: text(),
    /** The place variants that is looked at. */
    there: text(),
    /** The lick that is joined behind, and the notes between. */
    behind: maybeWhole(1, newest),
    between: whole(0, 12),
    /** Staff notation over the tab. */
    staff: flag(),
  })

export type LicksQuery = ReturnType<typeof useLicksQuery>
