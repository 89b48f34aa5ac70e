import { describe, expect, test } from 'vitest'
import type { LineEvent, Neck, PlacedTone } from '../api/client'
import { layOut, leastWidth, neighbour, samePlace } from './geometry'
import { boxMarks, changeMarks, emptyMarks, lineMarks, placeKey, toneMark } from './marks'

const tone = (string: number, fret: number, degree: string, more: Partial<PlacedTone> = {}) =>
  ({
    string,
    fret,
    degree,
    note: 'C',
    class: 'chordTone',
    finger: 1,
    spoken: `${degree} there`,
    ...more,
  }) as PlacedTone
const event = (string: number, fret: number, degree: string, more: Partial<LineEvent> = {}) =>
  ({
    string,
    fret,
    degree,
    class: 'chordTone',
    finger: 1,
    spoken: degree,
    tick: 0,
    ticks: 240,
    ...more,
  }) as LineEvent
const guitar = { frets: 22, strings: ['E', 'B', 'G', 'D', 'A', 'E'] } as Neck

describe('marks', () => {
  test('a root is one, and says its finger small', () => {
    expect(toneMark(tone(6, 8, 'R', { finger: 2 }), 'tone')).toMatchObject({
      ...{ text: 'R', root: true, small: '2', form: 'tone' },
    })
  })

  test('the box leaves out what a pebble takes', () => {
    const pebbles = [toneMark(tone(6, 8, 'R'), 'tone')]
    expect(boxMarks([tone(6, 8, 'R'), tone(6, 11, 'b3')], pebbles).map(placeKey)).toEqual(['6:11'])
  })

  test('of a change leaving tones are hollow, arriving filled, held both', () => {
    const marks = changeMarks([tone(3, 9, '3'), tone(4, 10, 'R')], [tone(4, 10, '5'), tone(2, 10, '3')])
    expect(marks.map((m) => [placeKey(m), m.form, m.text, m.second])).toEqual([
      ['3:9', 'leaving', '3', undefined],
      ['4:10', 'held', 'R', '5'],
      ['2:10', 'arriving', '3', undefined],
    ])
  })

  test('every other place can be picked', () => {
    const marks = emptyMarks(2, { low: 0, high: 1 }, [toneMark(tone(1, 1, 'R'), 'tone')])
    expect(marks.map((m) => m.spoken)).toEqual([...['string 1, open', 'string 2, open', 'string 2, fret 1']])
  })

  test('a line uses each place once, and its target is filled', () => {
    const marks = lineMarks(
      [event(3, 9, '3'), event(3, 9, '5'), event(2, 10, '3', { role: 'target' })],
      undefined,
    )
    expect(marks.map((m) => [placeKey(m), m.form])).toEqual([
      ['3:9', 'tone'],
      ['2:10', 'arriving'],
    ])
    expect(marks[0]!.spoken).toBe('3; then 5')
  })

  test('the note that sounds is lit, and its degree shown', () => {
    const [mark] = lineMarks([event(3, 9, '3'), event(3, 9, '5')], 1)
    expect([mark!.lit, mark!.text]).toEqual([true, '5'])
  })

  test('a bend is said beside the finger', () => {
    expect(lineMarks([event(3, 9, '4', { bend: 2, finger: 3 })], undefined)[0]!.small).toBe('3↑')
  })
})

describe('the neck', () => {
  const span = { low: 6, core: 7, coreEnd: 10, high: 11 }
  const plain = { mirrored: false, lowOnTop: false }

  test('frets under the hand are wider than the others', () => {
    const g = layOut(guitar, span, 1100, 30, plain)
    expect(g.wire(8) - g.wire(7)).toBeGreaterThan(2 * (g.wire(20) - g.wire(19)))
  })

  test('all frets are there, up to the edge', () => {
    const g = layOut(guitar, span, 1100, 30, plain)
    expect(g.wire(22)).toBeCloseTo(1100 - 4)
  })

  test('the lowest string is at the bottom, or on top where that is wanted', () => {
    expect(layOut(guitar, span, 1100, 30, plain).y(6)).toBeGreaterThan(
      layOut(guitar, span, 1100, 30, plain).y(1),
    )
    const turned = layOut(guitar, span, 1100, 30, { mirrored: false, lowOnTop: true })
    expect(turned.y(6)).toBeLessThan(turned.y(1))
  })

  test('on a phone the frets before the hand are folded and those after it left out', () => {
    const g = layOut(guitar, span, 370, 44, plain)
    expect([g.tight, g.frets]).toEqual([true, 11])
    expect(g.wire(4) - g.wire(3)).toBeCloseTo(370 / 46)
    expect(g.wire(11)).toBeCloseTo(370 - 4)
    expect(leastWidth(guitar, span, 370)).toBeLessThanOrEqual(370)
  })

  test('a whole neck is drawn wider than a phone, with room for a finger in each fret', () => {
    const whole = { low: 0, core: 0, coreEnd: 22, high: 22 }
    const least = leastWidth(guitar, whole, 370)
    const g = layOut(guitar, whole, least, 44, plain, 370)
    for (let fret = 1; fret <= 22; fret++) expect(g.room(fret)).toBeGreaterThanOrEqual(43.9)
    expect(least).toBeGreaterThan(2 * 370)
  })

  test('for left hands it is mirrored', () => {
    const g = layOut(guitar, span, 1100, 30, { mirrored: true, lowOnTop: false })
    expect(g.x(10)).toBeLessThan(g.x(7))
  })

  test.each([
    ['ArrowRight', plain, '3:9'],
    ['ArrowLeft', plain, '3:5'],
    ['ArrowUp', plain, '2:8'],
    ['ArrowDown', plain, '4:7'],
    ['ArrowRight', { mirrored: true, lowOnTop: false }, '3:5'],
    ['ArrowUp', { mirrored: false, lowOnTop: true }, '4:7'],
  ] as const)('%s goes to the nearest note that way', (pressed, turn, want) => {
    const all = [
      { string: 3, fret: 5 },
      { string: 3, fret: 9 },
      { string: 2, fret: 8 },
      { string: 4, fret: 7 },
    ]
    expect(placeKey(neighbour(all, { string: 3, fret: 7 }, pressed, turn)!)).toBe(want)
  })

  test('where there is none it stays', () => {
    expect(neighbour([], { string: 3, fret: 7 }, 'ArrowRight', plain)).toBeUndefined()
    expect(samePlace({ string: 3, fret: 7 }, { string: 3, fret: 7 })).toBe(true)
  })
})
