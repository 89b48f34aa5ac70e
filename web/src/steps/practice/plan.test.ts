import { expect, test } from 'vitest'
import type { SessionBlock } from '../../api/client'
import { minutesOf, moved } from './plan'

const blocks = ['a', 'b', 'c'].map((title, n) => ({ kind: 'free', title, minutes: n + 1 })) as SessionBlock[]
const titles = (all: SessionBlock[]) => all.map((b) => b.title).join('')

test('a block is moved to the place of another', () => {
  expect(titles(moved(blocks, 0, 2))).toBe('bca')
  expect(titles(moved(blocks, 2, 0))).toBe('cab')
  expect(titles(moved(blocks, 1, 1))).toBe('abc')
})

test('breaks come on top of the minutes', () => {
  expect(minutesOf([...blocks, { kind: 'break', title: '', minutes: 3 } as SessionBlock])).toBe(6)
})
