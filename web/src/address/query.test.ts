import { describe, expect, test } from 'vitest'
import {
  flag,
  keyOf,
  maybeWhole,
  oneOf,
  place,
  places,
  placesText,
  readField,
  readPlaces,
  text,
  whole,
  written,
} from './query'

const read = <T>(field: Parameters<typeof readField<T>>[3], value: string | undefined) =>
  readField(value === undefined ? {} : { 'change.x': value }, 'change', 'x', field)

describe('every step has its own keys', () => {
  test('the number of notes between two licks is not the length of a run', () => {
    const query = { 'licks.notes': '2' }
    expect(readField(query, 'licks', 'notes', whole(0, 12))).toBe(2)
    expect(readField(query, 'change', 'notes', whole(1, 64, 8))).toBe(8)
  })

  test('what all steps share has none of a step', () => {
    expect([keyOf('', 'at'), keyOf('map', 'over')]).toEqual(['at', 'map.over'])
  })
})

describe('what is no value is the default', () => {
  test.each([
    [undefined, 8],
    ['12', 12],
    ['', 8],
    ['0', 8],
    ['65', 8],
    ['3.5', 8],
    ['-3', 8],
    ['many', 8],
    ['1e1', 10],
    ['Infinity', 8],
    ['  ', 8],
  ])('a whole number of 1 to 64: %s', (value, want) => expect(read(whole(1, 64, 8), value)).toBe(want))

  test.each([
    [undefined, 'moves'],
    ['path', 'path'],
    ['nonsense', 'moves'],
    ['__proto__', 'moves'],
    ['', 'moves'],
  ])('one of some names: %s', (value, want) => expect(read(oneOf(['moves', 'path']), value)).toBe(want))

  test.each([
    ['yes', true],
    ['no', false],
    ['true', false],
    [undefined, false],
  ])('yes or no: %s', (value, want) => expect(read(flag(), value)).toBe(want))

  test.each([
    ['5', 5],
    ['x', undefined],
    [undefined, undefined],
  ])('a number or none: %s', (value, want) => expect(read(maybeWhole(1, 9), value)).toBe(want))

  test('a value that is there twice is none', () => {
    expect(readField({ 'change.x': ['1', '2'] }, 'change', 'x', whole(1, 9, 4))).toBe(4)
  })
})

describe('places', () => {
  test.each([
    ['3:8', [{ string: 3, fret: 8 }]],
    [
      '3:8 1:0',
      [
        { string: 3, fret: 8 },
        { string: 1, fret: 0 },
      ],
    ],
    ['', []],
    ['9:3', []],
    ['0:3', []],
    ['3:-1', []],
    ['3:99', []],
    ['3', []],
    ['a:b', []],
    ['3.5:2', []],
    [
      '3:8 nonsense 2:1',
      [
        { string: 3, fret: 8 },
        { string: 2, fret: 1 },
      ],
    ],
  ])('%s', (value, want) => expect(readPlaces(value)).toEqual(want))

  test('are written as they are read', () => {
    const all = [
      { string: 6, fret: 0 },
      { string: 1, fret: 22 },
    ]
    expect(readPlaces(placesText(all))).toEqual(all)
    expect(read(places(), placesText(all))).toEqual(all)
  })

  test('one place is the first', () => expect(read(place(), '2:5 3:6')).toEqual({ string: 2, fret: 5 }))
})

describe('writing', () => {
  const schema = { notes: whole(1, 64, 8), bench: oneOf(['moves', 'path']), here: place(), find: text() }

  test('only what differs from the default stands in the address', () => {
    expect(written({}, 'change', schema, { notes: 8, bench: 'path' })).toEqual({
      'change.notes': undefined,
      'change.bench': 'path',
    })
  })

  test('what is taken back leaves the address', () => {
    const query = { 'change.here': '3:8', at: '0' }
    expect(written(query, 'change', schema, { here: undefined })).toEqual({
      'change.here': undefined,
      at: '0',
    })
  })

  test('what a step does not have is not written', () => {
    expect(written({}, 'change', schema, { unknown: 3 })).toEqual({})
  })

  test('what is written is read again', () => {
    const query = written({}, 'change', schema, { notes: 12, here: { string: 2, fret: 3 }, find: 'Abe' })
    expect(readField(query as Record<string, string>, 'change', 'notes', schema.notes)).toBe(12)
    expect(readField(query as Record<string, string>, 'change', 'here', schema.here)).toEqual({
      ...{ string: 2, fret: 3 },
    })
    expect(readField(query as Record<string, string>, 'change', 'find', schema.find)).toBe('Abe')
  })
})
