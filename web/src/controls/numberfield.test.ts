import { mount } from '@vue/test-utils'
import { expect, test } from 'vitest'
import NumberField from './NumberField.vue'

test.each([
  ['120', 120, '120'],
  ['12', 20, '20'],
  ['999', 400, '400'],
  ['99.6', 100, '100'],
  ['', undefined, '112'],
  ['112', undefined, '112'],
])('%s is taken as %s and shown as %s', async (typed, taken, shown) => {
  const field = mount(NumberField, { props: { value: 112, least: 20, most: 400, label: 'Tempo' } })
  await field.find('input').setValue(typed)
  await field.find('input').trigger('change')
  expect(field.emitted('entered')?.at(-1)?.[0]).toBe(taken)
  expect((field.element as HTMLInputElement).value).toBe(shown)
})

test('emptied it is none where there may be none', async () => {
  const field = mount(NumberField, { props: { value: 90, label: 'Goal', optional: true } })
  await field.find('input').setValue('')
  await field.find('input').trigger('change')
  expect(field.emitted('entered')?.at(-1)).toEqual([undefined])
})
