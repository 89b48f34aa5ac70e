import { afterEach, expect, test } from 'vitest'
import { nextTick } from 'vue'
import { chooseKey, keyChoices, keyInForce, usualKeys } from './keychoices'

afterEach(usualKeys)

test('a key does what it usually does until another is chosen', () => {
  expect(keyInForce('b')).toBe('b')
  chooseKey('b', 'F8')
  expect(keyInForce('b')).toBe('F8')
  chooseKey('b', 'B')
  expect(keyInForce('b')).toBe('b')
  expect(keyChoices.instead).toEqual({})
})

test('a thing may have no key at all', () => {
  chooseKey('l', '')
  expect(keyInForce('l')).toBeUndefined()
})

test('without single characters the others stay', () => {
  keyChoices.charactersOff = true
  expect(['b', '+', '[', '1'].map(keyInForce)).toEqual([undefined, undefined, undefined, undefined])
  expect([' ', 'ArrowLeft', 'Mod+z', 'Shift+1', 'F1'].map(keyInForce)).toEqual([
    ' ',
    'ArrowLeft',
    'Mod+z',
    'Shift+1',
    'F1',
  ])
  chooseKey('b', 'F8')
  expect(keyInForce('b')).toBe('F8')
})

test('it is remembered on this device', async () => {
  chooseKey('h', 'F9')
  await nextTick()
  expect(JSON.parse(localStorage.getItem('undaris.keys')!)).toEqual({
    charactersOff: false,
    instead: { h: 'F9' },
  })
})
