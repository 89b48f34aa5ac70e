import type { LiveNote } from '../api/client'
import { samePlace } from './geometry'
import type { Mark } from './marks'

/**
 * The marks with what is played over them: at the places within the position, or at the first place where it lies
 * nowhere there.
 */
export function withPlayed(
  marks: Mark[],
  now: LiveNote | undefined,
  span: { low: number; high: number } | undefined,
): Mark[] {
  if (!now) return marks
  const within = now.places.filter((p) => span && p.fret >= span.low && p.fret <= span.high)
  const lit = within.length ? within : now.places.slice(0, 1)
  const text = (p: { string: number; fret: number }) =>
    marks.find((m) => samePlace(m, p))?.text || now.note.replace(/-?\d+$/, '')
  return [
    ...marks.filter((m) => !lit.some((p) => samePlace(m, p))),
    ...lit.map((p): Mark => ({
      ...{ string: p.string, fret: p.fret, form: 'arriving', text: text(p), root: false },
      ...{
        class: 'chordTone',
        lit: true,
        spoken: `you play ${now.note}, string ${p.string}, fret ${p.fret}`,
      },
    })),
  ]
}
