import type { Exercise, Layout } from '../../api/client'

const perString: Record<string, number> = { 'two a string': 2, 'three a string': 3, 'four a string': 4 }

const byOverlay: Record<string, Partial<Exercise>> = {
  scale: { tones: 'scale of the chord' },
  extensions: { extensions: [9, 11, 13] },
}

/**
 * What the Map shows, as an exercise: the overlay says what is walked, or the degree that an
 * arpeggio laid over stands on; the layout says where.
 */
export function walked(over: string, layout: Layout, standsOn?: string): Partial<Exercise> {
  const tones = standsOn
    ? { tones: 'superimposed arpeggio', superimposed: superimposedOn(standsOn) }
    : (byOverlay[over] ?? {})
  const count = perString[layout.kind ?? '']
  if (count) {
    const scale = count > 2 ? 'scale of the chord' : tones.tones
    return { ...tones, tones: scale, where: { kind: 'so many notes a string', perString: count } }
  }
  if (layout.kind === 'some strings')
    return { ...tones, where: { lowString: layout.low, highString: layout.high } }
  if (layout.kind === 'some frets')
    return { ...tones, where: { kind: 'on some frets', lowFret: layout.low, highFret: layout.high } }
  return tones
}

/** The number of a degree that an arpeggio can stand on; nothing for any other. */
function superimposedOn(degree: string): number | undefined {
  const number = Number(degree.replace(/[^0-9]/g, ''))
  return [3, 5, 7, 9].includes(number) ? number : undefined
}
