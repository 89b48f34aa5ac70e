import { nextTick, ref } from 'vue'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useGrowing } from './growing'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

test('of a long list the first rows come at once, and the rest after the frame', async () => {
  const list = ref([1, 2, 3])
  const rows = useGrowing(() => list.value, 2)
  expect(rows.value).toEqual([1, 2, 3])
  list.value = [4, 5, 6, 7]
  await nextTick()
  expect(rows.value).toEqual([4, 5])
  await vi.advanceTimersByTimeAsync(300)
  expect(rows.value).toEqual([4, 5, 6, 7])
  // Overtaken by another list, the rest of the first never comes.
  list.value = [8, 9, 10]
  await nextTick()
  list.value = [11, 12]
  await nextTick()
  expect(rows.value).toEqual([11, 12])
  await vi.advanceTimersByTimeAsync(300)
  expect(rows.value).toEqual([11, 12])
})
