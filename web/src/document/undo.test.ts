import { enableAutoUnmount, mount } from '@vue/test-utils'
import { afterEach, expect, test } from 'vitest'
import { defineComponent, h } from 'vue'
import { gestureOf, labelOf } from './labels'
import { History } from './history'
import { useUndo, useUndoable, type Undoable } from './undo'

enableAutoUnmount(afterEach)

function doc(log: string[], name: string) {
  const history = new History<string>()
  const one: Undoable = {
    history: history as History<unknown>,
    undo: async () => {
      log.push(`undo ${name}`)
      history.undo('now')
      return undefined
    },
    redo: async () => {
      log.push(`redo ${name}`)
      history.redo('now')
      return undefined
    },
  }
  return { history, one }
}

function page(...all: (() => Undoable | undefined)[]) {
  let undo!: ReturnType<typeof useUndo>
  const wrapper = mount(
    defineComponent({
      setup() {
        for (const one of all) useUndoable(one)
        undo = useUndo()
        return () => h('p')
      },
    }),
  )
  return { undo, wrapper }
}

test('one undo takes back what was done last, to whichever document', async () => {
  const log: string[] = []
  const [tune, lick] = [doc(log, 'tune'), doc(log, 'lick')]
  const { undo } = page(
    () => tune.one,
    () => lick.one,
  )
  tune.history.record('transpose to A', 'a')
  lick.history.record('write a note', 'b')
  tune.history.record('change the tempo', 'c')
  expect(undo.label.value).toBe('change the tempo')
  await undo.undo()
  expect(undo.label.value).toBe('write a note')
  await undo.undo()
  await undo.undo()
  expect(log).toEqual(['undo tune', 'undo lick', 'undo tune'])
  expect(undo.label.value).toBeUndefined()
})

test('redo does them again in their order', async () => {
  const log: string[] = []
  const [tune, lick] = [doc(log, 'tune'), doc(log, 'lick')]
  const { undo } = page(
    () => tune.one,
    () => lick.one,
  )
  tune.history.record('one', 'a')
  lick.history.record('two', 'b')
  await undo.undo()
  await undo.undo()
  expect(undo.redoLabel.value).toBe('one')
  await undo.redo()
  expect(undo.redoLabel.value).toBe('two')
  await undo.redo()
  expect(log.slice(2)).toEqual(['redo tune', 'redo lick'])
})

test('what a step edits counts only while it is on screen, and its history stays', () => {
  const lick = doc([], 'lick')
  lick.history.record('write a note', 'b')
  const { undo, wrapper } = page(() => lick.one)
  expect(undo.label.value).toBe('write a note')
  wrapper.unmount()
  expect(page().undo.label.value).toBeUndefined()
  expect(page(() => lick.one).undo.label.value).toBe('write a note')
})

test('without a document there is nothing to undo', async () => {
  const { undo } = page(() => undefined)
  expect(await undo.undo()).toBeUndefined()
  expect(undo.label.value).toBeUndefined()
})

test.each([
  [{ tonic: 'A' }, 'transpose to A'],
  [{ scheme: 'slow change' }, 'replace the bars: slow change'],
  [{ write: { bar: 3, text: 'F7' } }, 'write bar 3'],
  [{ write: { bar: 3, text: 'F7', imagined: true } }, 'imagine over bar 3'],
  [{ set: { title: 'x' } }, 'rename the tune'],
  [{ set: { tempo: 90 } }, 'change the tempo'],
  [{}, 'edit the tune'],
])('an edit %o of the tune is called “%s”', (edit, want) => expect(labelOf(edit)).toBe(want))

test('only values that are nudged make gestures', () => {
  expect(gestureOf({ set: { tempo: 90 } })).toBe('tempo')
  expect(gestureOf({ set: { title: 'x' } })).toBeUndefined()
  expect(gestureOf({ tonic: 'A' })).toBeUndefined()
})
