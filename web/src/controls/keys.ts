import { onBeforeUnmount, onMounted } from 'vue'
import { keyInForce } from './keychoices'

/** A key and what it does, as the list of keys shows it. Which keys there are stands in keytable.ts. */
export interface KeyBinding {
  /** As the browser names it; "Mod+z" is with Ctrl or ⌘, "Shift+1" with ⇧ whatever is printed there. */
  key: string
  says: string
  shown?: string
  run: () => void
}

type Bindings = () => KeyBinding[]
const bound: Bindings[] = []

/** Every binding that is in force, for the list of keys. */
export function boundKeys(): KeyBinding[] {
  return bound.flatMap((bindings) => bindings())
}

const fields = 'input:not([type=range]), textarea, select, [contenteditable]'
/** In these, keys find and choose; with Ctrl or ⌘ they mean what they do elsewhere. */
const choosers = '[role=combobox], [role=listbox], [role=dialog], input[type=range]'

/** Where space itself is meant: in a text, in a list that is open, in a dialog. It plays and stops everywhere else. */
const spaceIsMeant = `${fields}, [role=listbox], [role=dialog]`

function typing(target: EventTarget | null, mod = false, key = '') {
  if (!(target instanceof HTMLElement)) return false
  // What was chosen from with the mouse has the keyboard still; one that was gone to by keys opens by space.
  if (key === ' ')
    return target.closest(spaceIsMeant) !== null || (target.matches('[role=combobox]') && !wasClicked(target))
  return target.closest(mod ? fields : `${fields}, ${choosers}`) !== null
}

/** A key by the name it is bound by. Of digits and arrows ⇧ is a part of the name. */
export function nameOf(event: Pick<KeyboardEvent, 'key' | 'code' | 'shiftKey' | 'ctrlKey' | 'metaKey'>) {
  const mod = event.ctrlKey || event.metaKey
  const digit = /^Digit(\d)$/.exec(event.code)?.[1]
  if (mod) return `mod+${event.shiftKey ? 'shift+' : ''}${event.key.toLowerCase()}`
  if (event.shiftKey && digit) return `shift+${digit}`
  if (event.shiftKey && event.key.startsWith('Arrow')) return `shift+${event.key.toLowerCase()}`
  return event.key.toLowerCase()
}

/** What was clicked last, and has the keyboard from then: the next key is the page's again. */
let clicked: Element | null = null
function click(event: PointerEvent) {
  clicked =
    event.target instanceof Element
      ? event.target.closest('button, a, summary, [role=button], [role=combobox], input')
      : null
}
/** Whether it has the keyboard because it was clicked: then the next key is meant for the page. */
export const wasClicked = (target: EventTarget | null) => target !== null && target === clicked
/** Gone to by Tab it is pressed by keys again. */
const walk = (event: FocusEvent) => {
  if (event.target !== clicked) clicked = null
}

/** What the keyboard would press: a button that was gone to by keys, not one that was clicked. */
const pressable = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.matches('button, a, summary, input[type=checkbox]') &&
  target !== clicked

function listen(event: KeyboardEvent) {
  const mod = event.ctrlKey || event.metaKey
  if (event.defaultPrevented || event.altKey || typing(event.target, mod, event.key)) return
  if ((event.key === ' ' || event.key === 'Enter') && pressable(event.target)) return
  const name = nameOf(event)
  const binding = boundKeys().find((b) => keyInForce(b.key)?.toLowerCase() === name)
  if (!binding) return
  event.preventDefault()
  binding.run()
}

/** A button that was clicked would be clicked again by the space that plays. */
function holdSpace(event: KeyboardEvent) {
  if (event.key !== ' ' || typing(event.target, false, ' ') || pressable(event.target)) return
  if (boundKeys().some((b) => keyInForce(b.key) === ' ')) event.preventDefault()
}

/** Binds keys for as long as the component is on screen. */
export function useKeys(bindings: KeyBinding[] | Bindings) {
  const mine = typeof bindings === 'function' ? bindings : () => bindings
  onMounted(() => {
    if (bound.length === 0) {
      window.addEventListener('keydown', listen)
      window.addEventListener('keyup', holdSpace)
      window.addEventListener('pointerdown', click, true)
      window.addEventListener('focusin', walk)
    }
    bound.push(mine)
  })
  onBeforeUnmount(() => {
    bound.splice(bound.indexOf(mine), 1)
    if (bound.length > 0) return
    window.removeEventListener('keydown', listen)
    window.removeEventListener('keyup', holdSpace)
    window.removeEventListener('pointerdown', click, true)
    window.removeEventListener('focusin', walk)
  })
}
