import { onBeforeUnmount, onMounted } from 'vue'

/** A key and what it does, as the list of keys shows it. */
export interface KeyBinding {
  /** As the browser names it; "Mod+z" is with Ctrl or ⌘. */
  key: string
  says: string
  shown?: string
  run: () => void
}

const bound: KeyBinding[][] = []

/** Every binding that is in force, for the list of keys. */
export function boundKeys(): KeyBinding[] {
  return bound.flat()
}

const fields = 'input, textarea, select, [contenteditable]'
/** In these, keys find and choose; with Ctrl or ⌘ they mean what they do elsewhere. */
const choosers = '[role=combobox], [role=listbox], [role=dialog]'

function typing(target: EventTarget | null, mod = false) {
  return target instanceof HTMLElement && target.closest(mod ? fields : `${fields}, ${choosers}`) !== null
}

function listen(event: KeyboardEvent) {
  const mod = event.ctrlKey || event.metaKey
  if (event.defaultPrevented || event.altKey || typing(event.target, mod)) return
  const name = (mod ? 'mod+' : '') + (mod && event.shiftKey ? 'shift+' : '') + event.key.toLowerCase()
  const binding = boundKeys().find((b) => b.key.toLowerCase() === name)
  if (!binding) return
  event.preventDefault()
  binding.run()
}

/** A button in focus would also be clicked by the space that plays. */
function holdSpace(event: KeyboardEvent) {
  if (event.key === ' ' && !typing(event.target) && boundKeys().some((b) => b.key === ' '))
    event.preventDefault()
}

/** Binds keys for as long as the component is on screen. */
export function useKeys(bindings: KeyBinding[]) {
  onMounted(() => {
    if (bound.length === 0) {
      window.addEventListener('keydown', listen)
      window.addEventListener('keyup', holdSpace)
    }
    bound.push(bindings)
  })
  onBeforeUnmount(() => {
    bound.splice(bound.indexOf(bindings), 1)
    if (bound.length > 0) return
    window.removeEventListener('keydown', listen)
    window.removeEventListener('keyup', holdSpace)
  })
}
