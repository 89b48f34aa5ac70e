import type { GivenPart, LiveNote, Question } from '../../api/client'

/**
 * The part of an answer that a note is which was heard: its pitch, or, where the question asks for places, the place
 * of it that the hand in the position of the question has: of two the one in the core frets. Nothing where it has none.
 */
export function heardPart(note: LiveNote, question: Question): GivenPart | undefined {
  if (!question.needsPlace) return { midi: note.midi }
  const span = question.position
  const within = note.places.filter((p) => !span || (p.fret >= span.low && p.fret <= span.high))
  const place = within.find((p) => span && p.fret >= span.core && p.fret <= span.coreEnd) ?? within[0]
  return place && { place }
}
