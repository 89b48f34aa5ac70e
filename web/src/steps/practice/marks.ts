import type { AnswerMark, GivenPart, Place, Question } from '../../api/client'
import { signs } from '../../controls/spelling'
import { emptyMarks, placeKey, type Mark } from '../../neck/marks'

const said = (p: Place) => `string ${p.string}, ${p.fret === 0 ? 'open' : `fret ${p.fret}`}`
const pebble = (place: Place, form: Mark['form'], text: string, spoken: string): Mark => ({
  ...{ string: place.string, fret: place.fret, form, text, root: text === 'R', class: 'chordTone' },
  spoken: `${spoken}, ${said(place)}`,
})

/**
 * The neck of a question: what is lit, what was answered, and once it is marked what was right (filled),
 * wrong (hollow, ×) and left out (a ghost). Every other place can be picked.
 */
export function drillMarks(q: Question, given: GivenPart[], mark: AnswerMark | undefined): Mark[] {
  const marks = new Map<string, Mark>()
  const put = (one: Mark) => marks.set(placeKey(one), one)
  for (const lit of q.shown)
    put({ ...pebble(lit, 'tone', lit.label, lit.label || 'lit'), root: lit.label === 'R' })
  q.cells.forEach((cell, n) => {
    const text = given[n]?.note ?? (n === given.length && !mark ? '?' : '')
    put({ ...pebble(cell, text === '?' ? 'arriving' : 'ghost', text, text || 'to be named'), root: false })
  })
  if (mark) {
    for (const lit of mark.neck) put(pebble(lit, 'ghost', lit.label, `${lit.label}, left out`))
    for (const part of mark.parts) {
      if (!part.place) continue
      if (part.state === 'missing') put(pebble(part.place, 'ghost', part.label, `${part.label}, left out`))
      else if (part.state === 'right') put(pebble(part.place, 'tone', part.label, `${part.label}, right`))
      else put({ ...pebble(part.place, 'leaving', '×', `${part.label}, wrong`), small: signs(part.label) })
    }
    if (q.form === 'chosen' && mark.neck.length > 0)
      for (const lit of mark.neck) put(pebble(lit, 'tone', lit.label, lit.label))
  } else if (q.form !== 'written') {
    given.forEach((part, n) => {
      if (part.place)
        put({
          ...pebble(part.place, 'tone', q.form === 'in order' ? String(n + 1) : '•', 'given'),
          root: false,
        })
    })
  }
  const span = q.position
  const all = [...marks.values()]
  if (!span || q.form === 'chosen' || q.form === 'written' || mark) return all
  return [...emptyMarks(q.strings.length, span, all), ...all]
}
