import { describe, expect, test } from 'vitest'
import { nameOf } from './keys'
import { keyTable } from './keytable'

const sources = import.meta.glob<string>('../{app,steps}/**/*.{ts,vue}', {
  query: '?raw',
  import: 'default',
  eager: true,
})

/** The keys that are bound in the files of a view, by the view. */
function bound(): Record<string, Set<string>> {
  const views: Record<string, Set<string>> = {}
  for (const [path, text] of Object.entries(sources)) {
    if (!text.includes('useKeys(') && !path.includes('pedals')) continue
    const view = /steps\/([^/]+)\//.exec(path)?.[1] ?? 'everywhere'
    const keys = (views[view] ??= new Set())
    for (const [, key] of text.matchAll(/\bkey: '([^']+)'/g)) keys.add(key!)
  }
  return views
}

describe('the table of keys', () => {
  test('no key of a step is one that means the same everywhere', () => {
    const { everywhere, ...steps } = keyTable
    for (const [step, keys] of Object.entries(steps)) {
      expect(new Set(keys).size, step).toBe(keys.length)
      // In Practice, which is no step of a tune, space goes on.
      for (const key of keys.filter((key) => step !== 'practice' || key !== ' '))
        expect(everywhere as readonly string[], `${step}: ${key}`).not.toContain(key)
    }
  })

  test('what is bound stands in the table', () => {
    for (const [view, keys] of Object.entries(bound())) {
      const table = keyTable[view as keyof typeof keyTable] as readonly string[]
      for (const key of keys) expect(table, `${key} of ${view}`).toContain(key)
    }
  })

  test('what stands in the table is bound', () => {
    const all = bound()
    // The steps by their numbers, and the parts of the band, are bound from lists.
    const listed = /^(Shift\+)?\d$/
    for (const [view, keys] of Object.entries(keyTable))
      for (const key of keys) if (!listed.test(key)) expect([...all[view]!], view).toContain(key)
  })
})

test('a key is named as it is bound', () => {
  const press = { shiftKey: false, ctrlKey: false, metaKey: false, code: '' }
  expect(nameOf({ ...press, key: '!', code: 'Digit1', shiftKey: true })).toBe('shift+1')
  expect(nameOf({ ...press, key: '>', code: 'Period', shiftKey: true })).toBe('>')
  expect(nameOf({ ...press, key: 'ArrowLeft', shiftKey: true })).toBe('shift+arrowleft')
  expect(nameOf({ ...press, key: 'z', ctrlKey: true, shiftKey: true })).toBe('mod+shift+z')
})
