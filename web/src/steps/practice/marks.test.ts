import { expect, test } from 'vitest'
import type { AnswerMark, Question } from '../../api/client'
import { drillMarks } from './marks'

const question = {
  ...{ form: 'all of them', shown: [], cells: [], strings: ['E', 'B'], frets: 22 },
  position: { low: 5, high: 6, core: 5, coreEnd: 6 },
} as unknown as Question
const brief = (marks: ReturnType<typeof drillMarks>) =>
  marks.filter((m) => m.form !== 'empty').map((m) => `${m.form} ${m.string}:${m.fret} ${m.text}`)

test('every place can be picked, and what is picked stands there', () => {
  const marks = drillMarks(question, [{ place: { string: 2, fret: 5 } }], undefined)
  expect(marks).toHaveLength(4)
  expect(brief(marks)).toEqual(['tone 2:5 •'])
  const inOrder = drillMarks(
    { ...question, form: 'in order' },
    [{ place: { string: 2, fret: 5 } }],
    undefined,
  )
  expect(brief(inOrder)).toEqual(['tone 2:5 1'])
})

test('once marked it is said by form what was right, wrong and left out', () => {
  const mark = {
    ...{ right: false, got: 1, of: 3, text: '', neck: [{ string: 1, fret: 6, label: 'R' }] },
    parts: [
      { state: 'right', label: '3', given: 0, place: { string: 2, fret: 5 } },
      { state: 'wrong', label: '4', given: 1, place: { string: 2, fret: 6 } },
      { state: 'missing', label: 'R', given: -1, place: { string: 1, fret: 6 } },
    ],
  } as AnswerMark
  expect(brief(drillMarks(question, [], mark))).toEqual(['ghost 1:6 R', 'tone 2:5 3', 'leaving 2:6 ×'])
})

test('places that are to be named show what was written, and which is next', () => {
  const cells = [5, 6].map((fret) => ({ string: 1, fret }))
  const marks = drillMarks({ ...question, form: 'written', cells }, [{ note: 'A' }], undefined)
  expect(brief(marks)).toEqual(['ghost 1:5 A', 'arriving 1:6 ?'])
})
