import { expect, test } from 'vitest'
import { keyEventOf } from './keysinputs'

test('messages of an instrument become events', () => {
  expect(keyEventOf(new Uint8Array([0x92, 60, 90]), 1.5)).toEqual({
    seconds: 1.5,
    channel: 2,
    key: 60,
    velocity: 90,
  })
  expect(keyEventOf(new Uint8Array([0x92, 60, 0]), 2)).toEqual({
    seconds: 2,
    channel: 2,
    key: 60,
    velocity: 0,
  })
  expect(keyEventOf(new Uint8Array([0x80, 60, 40]), 2)).toEqual({
    seconds: 2,
    channel: 0,
    key: 60,
    velocity: 0,
  })
  expect(keyEventOf(new Uint8Array([0xe0, 0, 0x40]), 3)).toEqual({
    seconds: 3,
    channel: 0,
    wheel: true,
    cents: 0,
  })
  expect(keyEventOf(new Uint8Array([0xe5, 0x7f, 0x7f]), 3)!.cents).toBeCloseTo(200, 0)
  expect(keyEventOf(new Uint8Array([0xe0, 0, 0]), 3)!.cents).toBe(-200)
  expect(keyEventOf(new Uint8Array([0xf8]), 3)).toBeUndefined()
})
