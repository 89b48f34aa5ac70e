import { describe, expect, test } from 'vitest'
import type { Neck } from '../api/client'
import { arcOf, markSize } from './arrows'
import { layOut } from './geometry'
import type { Arrow, Mark } from './marks'

const guitar = { frets: 22, strings: ['E', 'B', 'G', 'D', 'A', 'E'] } as Neck
const g = layOut(guitar, { low: 5, high: 9, core: 5, coreEnd: 8 }, 1148, 36, {
  mirrored: false,
  lowOnTop: false,
})
const mark = (more: Partial<Mark> = {}): Mark => ({
  ...{ string: 3, fret: 7, form: 'tone', text: '3', root: false, class: 'chordTone', spoken: '3' },
  ...more,
})
const arrow = (from: [number, number], to: [number, number]): Arrow => ({
  ...{ from: { string: from[0], fret: from[1] }, to: { string: to[0], fret: to[1] } },
  ...{ text: '½', spoken: 'a half step', strong: false },
})
const numbers = (path: string) => path.match(/-?\d+(\.\d+)?/g)!.map(Number)

describe('the size of a mark', () => {
  test.each([
    ['one degree', mark(), true, 46],
    ['a long degree', mark({ text: 'bb7' }), true, 52],
    ['with two signs beside it', mark({ small: '1↑' }), true, 60],
    ['two degrees', mark({ second: 'R' }), true, 62],
    ['a ghost', mark({ form: 'ghost' }), true, 34],
    ['where frets are narrow', mark(), false, 24],
  ])('%s', (_, one, isWide, w) => {
    expect(markSize(one, isWide ? 73 : 25).w).toBe(w)
  })
})

describe('an arrow', () => {
  test('along a string ends before the pebble it leads to, and bows upwards', () => {
    const arc = arcOf(arrow([3, 6], [3, 8]), [mark({ fret: 6 }), mark({ fret: 8 })], g, () => 73)
    const [x1 = 0, y1, , bend = 0, x2 = 0, y2] = numbers(arc.path)
    expect(x1).toBeGreaterThan(g.x(6) + 20)
    expect(x2).toBeLessThan(g.x(8) - 20)
    expect(y1).toBeCloseTo(g.y(3))
    expect(y2).toBeCloseTo(g.y(3))
    expect(bend).toBeLessThan(g.y(3))
  })

  test('between neighbours on one fret goes round their ends', () => {
    const up = arcOf(arrow([3, 7], [2, 7]), [], g, () => 73)
    const down = arcOf(arrow([2, 7], [3, 7]), [], g, () => 73)
    expect(numbers(up.path)[0]).toBe(g.x(7) + 30)
    expect(numbers(down.path)[0]).toBe(g.x(7) - 30)
  })

  test('stays clear of a wide pebble by its width', () => {
    const to = (more: Partial<Mark>) =>
      numbers(arcOf(arrow([3, 6], [3, 8]), [mark({ fret: 8, ...more })], g, () => 73).path)[4]!
    expect(to({ second: 'R' })).toBeLessThan(to({}))
  })
})
