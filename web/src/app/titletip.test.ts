import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { h } from 'vue'
import TitleTip from './TitleTip.vue'

let clicks = 0
const shell = {
  setup: () => () =>
    h('div', [
      h('button', { title: 'effort 3', onClick: () => clicks++ }, 'enclosure'),
      h('p', { title: 'all of a sentence that is cut' }, 'all of a'),
      h('i', { title: 'the same' }, 'the same'),
      h('a', { title: 'Copy', onClick: () => clicks++ }, 'Copy'),
      h(TitleTip),
    ]),
}
let shown: ReturnType<typeof mount>
beforeEach(() => {
  vi.useFakeTimers()
  clicks = 0
  shown = mount(shell, { attachTo: document.body })
})
afterEach(() => {
  shown.unmount()
  vi.useRealTimers()
})

const point = (on: string, name: string, pointerType = 'touch', x = 0) =>
  shown
    .find(on)
    .element.dispatchEvent(
      Object.assign(new MouseEvent(name, { bubbles: true, cancelable: true, clientX: x }), { pointerType }),
    )
async function tip() {
  await shown.vm.$nextTick()
  return shown.find('[role=tooltip]').exists() ? shown.find('[role=tooltip]').text() : ''
}

test('a finger that holds a button is shown its title, and does not press it', async () => {
  point('button', 'pointerdown')
  expect(await tip()).toBe('')
  vi.advanceTimersByTime(600)
  expect(await tip()).toBe('effort 3')
  point('button', 'pointerup')
  shown.find('button').element.focus()
  point('button', 'click')
  expect(clicks).toBe(0)
  expect(await tip()).toBe('effort 3')
  point('p', 'pointerdown', 'mouse')
  expect(await tip()).toBe('')
})

test('a tap presses it', async () => {
  point('button', 'pointerdown')
  vi.advanceTimersByTime(100)
  point('button', 'pointerup')
  point('button', 'click')
  vi.advanceTimersByTime(600)
  expect(await tip()).toBe('')
  expect(clicks).toBe(1)
})

test('what is not pressed shows its title on a tap, and not on a swipe', async () => {
  point('p', 'pointerdown')
  point('p', 'pointermove', 'touch', 40)
  point('p', 'pointerup', 'touch', 40)
  expect(await tip()).toBe('')
  point('p', 'pointerdown')
  point('p', 'pointerup')
  expect(await tip()).toBe('all of a sentence that is cut')
})

test('a title that can be read in full where it stands is not said twice', async () => {
  point('i', 'pointerdown')
  point('i', 'pointerup')
  expect(await tip()).toBe('')
})

test('a long press where there is nothing to show is a press', () => {
  point('a', 'pointerdown')
  vi.advanceTimersByTime(600)
  point('a', 'pointerup')
  point('a', 'click')
  expect(clicks).toBe(1)
})

test('a key presses what a finger held before', () => {
  point('button', 'pointerdown')
  vi.advanceTimersByTime(600)
  point('button', 'pointerup')
  window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }))
  point('button', 'click')
  expect(clicks).toBe(1)
})

test('the keyboard that rests on a button is shown it, until Escape', async () => {
  window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Tab' }))
  shown.find('button').element.focus()
  vi.advanceTimersByTime(600)
  expect(await tip()).toBe('effort 3')
  window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }))
  expect(await tip()).toBe('')
})

test('a mouse is left to the browser', async () => {
  point('button', 'pointerdown', 'mouse')
  vi.advanceTimersByTime(600)
  expect(await tip()).toBe('')
})
