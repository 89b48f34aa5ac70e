import { describe, expect, it } from 'vitest'
import { walked } from './walked'

describe('what the Map shows, as an exercise', () => {
  it('is the chord where nothing else is laid out', () => {
    expect(walked('box', {})).toEqual({})
  })
  it('is the scale or the extensions that are laid over it', () => {
    expect(walked('scale', {})).toEqual({ tones: 'scale of the chord' })
    expect(walked('extensions', {})).toEqual({ extensions: [9, 11, 13] })
  })
  it('is the arpeggio that is laid over it, by the degree it stands on', () => {
    expect(walked('Em7b5', {}, '3')).toEqual({ tones: 'superimposed arpeggio', superimposed: 3 })
    expect(walked('Bbmaj7', {}, 'b7').superimposed).toBe(7)
    expect(walked('Dm7', {}, '9').superimposed).toBe(9)
    expect(walked('Fmaj7', {}, '11').superimposed).toBeUndefined()
  })
  it('lies where the layout has it', () => {
    expect(walked('box', { kind: 'four a string' })).toEqual({
      tones: 'scale of the chord',
      where: { kind: 'so many notes a string', perString: 4 },
    })
    expect(walked('scale', { kind: 'some strings', low: 2, high: 5 }).where).toEqual({
      lowString: 2,
      highString: 5,
    })
    expect(walked('none', { kind: 'some frets', low: 5, high: 8 }).where).toEqual({
      kind: 'on some frets',
      lowFret: 5,
      highFret: 8,
    })
  })
})
