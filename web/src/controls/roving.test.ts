import { mount } from '@vue/test-utils'
import { expect, test } from 'vitest'
import { nextTick, ref } from 'vue'
import { vRoving } from './roving'

const stops = (root: Element) =>
  [...root.querySelectorAll('button')].map((button) => button.getAttribute('tabindex'))

function row(of = ref(['a', 'b', 'c']), chosen = ref('b')) {
  const shown = mount(
    {
      setup: () => ({ of, chosen }),
      template: `<p v-roving="'button'"><button v-for="one in of" :key="one" :aria-pressed="one === chosen">{{ one }}</button></p>`,
    },
    { global: { directives: { roving: vRoving } }, attachTo: document.body },
  )
  return { shown, of, root: shown.element as Element }
}
const press = (key: string, more: KeyboardEventInit = {}) =>
  document.activeElement!.dispatchEvent(
    new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }),
  )

test('one of them is a stop: the one that is chosen', () => {
  const { shown, root } = row()
  expect(stops(root)).toEqual(['-1', '0', '-1'])
  shown.unmount()
})

test('arrows go from one to the next, and no further than the ends', () => {
  const { shown, root } = row()
  root.querySelectorAll('button')[1]!.focus()
  press('ArrowRight')
  expect(document.activeElement!.textContent).toBe('c')
  expect(stops(root)).toEqual(['-1', '-1', '0'])
  press('ArrowRight')
  expect(document.activeElement!.textContent).toBe('c')
  press('ArrowLeft')
  press('ArrowLeft')
  expect(document.activeElement!.textContent).toBe('a')
  shown.unmount()
})

test('with shift or ctrl a key is not its own', () => {
  const { shown, root } = row()
  root.querySelectorAll('button')[1]!.focus()
  expect(press('ArrowRight', { shiftKey: true })).toBe(true)
  expect(document.activeElement!.textContent).toBe('b')
  shown.unmount()
})

test('when the one that was the stop goes, another is', async () => {
  const { shown, of, root } = row(ref(['a', 'b', 'c']), ref('none'))
  root.querySelectorAll('button')[2]!.focus()
  of.value = ['a', 'b']
  await nextTick()
  expect(stops(root)).toEqual(['0', '-1'])
  shown.unmount()
})
