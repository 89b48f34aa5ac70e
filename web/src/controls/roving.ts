import type { Directive } from 'vue'
import { wasClicked } from './keys'

type Direction = 'vertical'

const keysBy = {
  horizontal: { ArrowLeft: -1, ArrowRight: 1 },
  vertical: { ArrowUp: -1, ArrowDown: 1 },
} as const

const states = new WeakMap<Element, { selector: string; current: Element | undefined }>()

const itemsOf = (root: Element) => [
  ...root.querySelectorAll<HTMLElement | SVGElement>(states.get(root)?.selector ?? ''),
]

/** One of the items can be gone to by the Tab key; the others are gone to from there. */
function refresh(root: Element) {
  const state = states.get(root)
  if (!state) return
  const items = itemsOf(root)
  const chosen = (e: Element) =>
    e.matches('[aria-selected=true], [aria-pressed=true], [aria-current=true], .now')
  const stop = items.find((e) => e === state.current) ?? items.find(chosen) ?? items[0]
  for (const item of items) {
    const wanted = item === stop ? '0' : '-1'
    if (item.getAttribute('tabindex') !== wanted) item.setAttribute('tabindex', wanted)
  }
}

/**
 * Makes one stop for the Tab key of several things that belong together, by a selector of them: the
 * arrow keys go from one to the next. What an item does with a key itself comes first, and keys after
 * a click are the page's.
 */
export const vRoving: Directive<Element, string, Direction> = {
  mounted(root, { value, modifiers }) {
    states.set(root, { selector: value, current: undefined })
    refresh(root)
    root.addEventListener('focusin', ({ target }) => {
      const state = states.get(root)
      if (!state || !(target instanceof Element)) return
      state.current = target.closest(state.selector) ?? state.current
      refresh(root)
    })
    root.addEventListener('keydown', (event) => {
      if (!(event instanceof KeyboardEvent) || event.defaultPrevented) return
      if (wasClicked(event.target) || event.shiftKey || event.ctrlKey || event.metaKey || event.altKey) return
      const keys: Record<string, number> = modifiers.vertical ? keysBy.vertical : keysBy.horizontal
      const by = keys[event.key]
      const items = itemsOf(root)
      const at = items.findIndex((e) => e === event.target)
      if (by === undefined || at < 0) return
      event.preventDefault()
      event.stopPropagation()
      items[Math.max(0, Math.min(at + by, items.length - 1))]?.focus()
    })
  },
  updated(root, { value }) {
    const state = states.get(root)
    if (state) state.selector = value
    refresh(root)
  },
}
