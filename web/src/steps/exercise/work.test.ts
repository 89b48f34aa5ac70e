import { describe, expect, it } from 'vitest'
import { plain, readExercise, writeExercise } from './work'

describe('an exercise in the address', () => {
  it('holds only what is chosen, and is read as it was', () => {
    const one = { ...plain(), tones: 'thirds', where: { lowString: 1, highString: 2 } }
    const text = writeExercise(one)
    expect(text).toBe('{"tones":"thirds","where":{"highString":2,"lowString":1}}')
    const again = { ...plain(), where: { highString: 2, kind: undefined, lowString: 1 }, tones: 'thirds' }
    expect(writeExercise(again)).toBe(text)
    expect(readExercise(text)).toEqual(one)
  })
  it('is the plain one where it cannot be read', () => {
    expect(readExercise('{"tones')).toEqual(plain())
    expect(readExercise('7')).toEqual(plain())
  })
})
