import { expect, test } from 'vitest'
import { weekDots } from './weeks'

const size = { width: 100, height: 50, margin: 10 }
const take = (began: string, value: number) => ({ began, value, text: `${value}` })

test('takes stand by their time and their value', () => {
  const dots = weekDots(
    [take('2026-03-11T10:00:00Z', 1), take('2026-03-01T10:00:00Z', 0), take('2026-03-06T10:00:00Z', 0.5)],
    size,
    1,
  )
  expect(dots).toEqual([
    { x: 10, y: 40, text: '0' },
    { x: 50, y: 25, text: '0.5' },
    { x: 90, y: 10, text: '1' },
  ])
})

test('one take stands in the middle, and no take makes no dot', () => {
  expect(weekDots([take('2026-03-01T10:00:00Z', 20)], size)).toEqual([{ x: 50, y: 10, text: '20' }])
  expect(weekDots([], size)).toEqual([])
  expect(weekDots([take('2026-03-01T10:00:00Z', 0)], size)[0]).toMatchObject({ y: 40 })
})
