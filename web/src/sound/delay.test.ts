import { expect, test } from 'vitest'
import { loopDelay } from './delay'

test('the delay is the middle of the clicks that came back', () => {
  expect(loopDelay([1, 2, 3], [1.03, 2.031, 3.03])).toBeCloseTo(0.03, 5)
  expect(loopDelay([1, 2, 3, 4], [1.03, 2.2, 3.03])).toBeCloseTo(0.03, 5)
  expect(loopDelay([1, 2, 3, 4], [1.03])).toBeUndefined()
  expect(loopDelay([], [1])).toBeUndefined()
})
