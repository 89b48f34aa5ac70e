import { expect, test } from 'vitest'
import type { Question } from '../../api/client'
import { typedChoice, typedPart } from './typed'

const question = { strings: ['E', 'B', 'G', 'D', 'A', 'E'], frets: 22 } as Question

test('a string and a fret, however they are typed', () => {
  for (const text of ['4 10', '4:10', '4.10', '410', ' 4  10 '])
    expect(typedPart(text, question)).toEqual({ place: { string: 4, fret: 10 } })
  expect(typedPart('30', question)).toEqual({ place: { string: 3, fret: 0 } })
  for (const text of ['7 1', '0 4', '1 23', '4', '', 'x']) expect(typedPart(text, question)).toBeUndefined()
})

test('the name of a note', () => {
  expect(typedPart('bb', question)).toEqual({ note: 'Bb' })
  expect(typedPart('b', question)).toEqual({ note: 'B' })
  expect(typedPart('F♯', question)).toEqual({ note: 'F#' })
  expect(typedPart('H', question)).toBeUndefined()
})

test('a choice by its number or as it is written', () => {
  expect(typedChoice('2', ['R', '3', '5'])).toBe('3')
  expect(typedChoice('3', ['R', '3', '5'])).toBe('3')
  expect(typedChoice('b7', ['R', 'b7'])).toBe('b7')
  expect(typedChoice('9', ['R', 'b7'])).toBeUndefined()
})
