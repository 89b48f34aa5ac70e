import { expect, test } from 'vitest'
import { gesturePause, History } from './history'

function timed(most?: number) {
  const clock = { now: 1000 }
  return { clock, history: new History<string>(() => clock.now, most) }
}

test('nothing can be undone at first', () => {
  const { history } = timed()
  expect(history.undoable.value).toBeUndefined()
  expect(history.undo('now')).toBeUndefined()
  expect(history.redo('now')).toBeUndefined()
})

test('undo brings back what was there before, and says what it undoes', () => {
  const { history } = timed()
  history.record('transpose to A', 'in B')
  expect(history.undoable.value?.label).toBe('transpose to A')
  expect(history.undo('in A')?.body).toBe('in B')
  expect(history.undoable.value).toBeUndefined()
})

test('redo brings back what was undone, under the same name', () => {
  const { history } = timed()
  history.record('transpose to A', 'in B')
  history.undo('in A')
  expect(history.redoable.value?.label).toBe('transpose to A')
  expect(history.redo('in B')?.body).toBe('in A')
  expect(history.undoable.value?.body).toBe('in B')
})

test('many steps go back and forth in their order', () => {
  const { history } = timed()
  history.record('one', '0')
  history.record('two', '1')
  history.record('three', '2')
  let now = '3'
  for (const want of ['2', '1', '0']) {
    now = history.undo(now)!.body
    expect(now).toBe(want)
  }
  for (const want of ['1', '2', '3']) {
    now = history.redo(now)!.body
    expect(now).toBe(want)
  }
})

test('a new edit takes away what could be redone', () => {
  const { history } = timed()
  history.record('one', '0')
  history.undo('1')
  history.record('other', '0')
  expect(history.redoable.value).toBeUndefined()
})

test('steps of one gesture are one', () => {
  const { history, clock } = timed()
  for (const before of ['100', '101', '102']) {
    history.record('change the tempo', before, 'tempo')
    clock.now += 200
  }
  expect(history.undo('103')?.body).toBe('100')
  expect(history.undoable.value).toBeUndefined()
})

test('a gesture that pauses is two', () => {
  const { history, clock } = timed()
  history.record('change the tempo', '100', 'tempo')
  clock.now += gesturePause + 1
  history.record('change the tempo', '101', 'tempo')
  expect(history.undo('102')?.body).toBe('101')
})

test('another gesture between is its own step', () => {
  const { history } = timed()
  history.record('tempo', '1', 'tempo')
  history.record('swing', '2', 'swing')
  history.record('tempo', '3', 'tempo')
  expect(history.undo('4')?.body).toBe('3')
  expect(history.undo('3')?.body).toBe('2')
})

test('an edit after an undo does not join the gesture before it', () => {
  const { history } = timed()
  history.record('tempo', '1', 'tempo')
  history.record('key', '2')
  history.undo('3')
  history.record('tempo', '2', 'tempo')
  // The gesture goes on: what undo brings back is what was there when it began.
  expect(history.undo('4')?.body).toBe('1')
})

test('the oldest steps are let go beyond the most that are kept', () => {
  const { history } = timed(3)
  for (const before of ['0', '1', '2', '3', '4']) history.record('edit', before)
  expect([history.undo('5')?.body, history.undo('4')?.body, history.undo('3')?.body]).toEqual(['4', '3', '2'])
  expect(history.undo('2')).toBeUndefined()
})

test('steps of several documents can be ordered', () => {
  const tune = new History<string>()
  const lick = new History<string>()
  tune.record('transpose', 'a')
  lick.record('write a note', 'b')
  tune.record('tempo', 'c')
  expect(tune.undoable.value!.order).toBeGreaterThan(lick.undoable.value!.order)
})

test('clearing forgets both ways', () => {
  const { history } = timed()
  history.record('one', '0')
  history.record('two', '1')
  history.undo('2')
  history.clear()
  expect(history.undoable.value ?? history.redoable.value).toBeUndefined()
})
