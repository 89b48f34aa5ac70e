import type { GivenPart, Question } from '../../api/client'

/**
 * What was typed as a part of an answer: a string and a fret ("4 10", "4:10", "410"), or the name of
 * a note ("bb", "F#"). Nothing where it is neither.
 */
export function typedPart(text: string, question: Question): GivenPart | undefined {
  const word = text.trim()
  const place = /^(\d)\s*[\s:.,]?\s*(\d{1,2})$/.exec(word)
  if (place) {
    const [string, fret] = [Number(place[1]), Number(place[2])]
    if (string < 1 || string > question.strings.length || fret > question.frets) return undefined
    return { place: { string, fret } }
  }
  const note = /^([a-gA-G])(bb|##|b|#|♭|♯)?$/.exec(word)
  if (!note) return undefined
  const sign = (note[2] ?? '').replace('♭', 'b').replace('♯', '#')
  return { note: note[1]!.toUpperCase() + sign }
}

/** The choice that was typed: by its number from 1, or as it is written. */
export function typedChoice(text: string, choices: string[]): string | undefined {
  const word = text.trim().toLowerCase()
  const byName = choices.find((choice) => choice.toLowerCase() === word)
  const byNumber = /^\d+$/.test(word) ? choices[Number(word) - 1] : undefined
  return byName ?? byNumber
}
