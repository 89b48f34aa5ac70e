const sizes: Record<number, string> = { 0.5: '¼', 1: '½', 1.5: '¾', 2: 'full', 2.5: '1¼', 3: '1½' }

/** A bend's size, given in semitones, as players write it: in whole steps. */
export const bendSize = (semitones: number) => sizes[semitones] ?? String(semitones)
