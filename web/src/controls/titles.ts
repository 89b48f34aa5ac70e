import { onBeforeUnmount, onMounted, shallowRef } from 'vue'

/** A title that is shown: its words, and where on the screen (px) the element is that has it. */
export interface ShownTitle {
  text: string
  at: { left: number; top: number; bottom: number; width: number }
}

/** How long a finger holds, or the keyboard rests, before a title is shown, in ms. */
const hold = 500
/** How far a finger that holds may stray, in px. */
const stray = 10

const pressed =
  'button, a, input, select, textarea, summary, label, [role=button], [role=tab], [role=option], [role=slider]'

/** The words of an element's title that cannot be read on it. */
export function titleOf(e: HTMLElement): string {
  const same = e.title.trim() === (e.textContent ?? '').trim()
  return same && e.scrollWidth <= e.clientWidth ? '' : e.title
}

/**
 * The title to show to a player without a mouse, to whom the browser shows none: of what a finger
 * holds, or taps where nothing is pressed, and of what the keyboard rests on. Escape, a press elsewhere
 * and scrolling take it away.
 */
export function useTitles() {
  const shown = shallowRef<ShownTitle>()
  let timer = 0
  let held: { e: HTMLElement; x: number; y: number; long: boolean } | undefined
  let byKeys = false

  /** Says whether there was something to show. */
  function show(e: HTMLElement): boolean {
    const text = titleOf(e)
    if (!text || !e.isConnected) return false
    const { left, top, bottom, width } = e.getBoundingClientRect()
    shown.value = { text, at: { left, top, bottom, width } }
    return true
  }
  function hide() {
    window.clearTimeout(timer)
    shown.value = undefined
  }
  const titled = (event: Event) =>
    event.target instanceof Element ? event.target.closest<HTMLElement>('[title]') : null

  function down(event: PointerEvent) {
    hide()
    byKeys = false
    held = undefined
    const e = titled(event)
    if (!e || event.pointerType === 'mouse') return
    const touch = { e, x: event.clientX, y: event.clientY, long: false }
    held = touch
    if (!e.closest(pressed)) return
    // Where nothing is shown, a long press is a press.
    timer = window.setTimeout(() => (touch.long = show(e)), hold)
  }
  function move(event: PointerEvent) {
    if (!held || Math.hypot(event.clientX - held.x, event.clientY - held.y) < stray) return
    window.clearTimeout(timer)
    held = undefined
  }
  function up() {
    window.clearTimeout(timer)
    if (held && !held.e.closest(pressed)) show(held.e)
  }
  /** What was held to read its title is not pressed as well. */
  function click(event: MouseEvent) {
    if (!held?.long || titled(event) !== held.e) return
    event.preventDefault()
    event.stopPropagation()
    held = undefined
  }
  function menu(event: Event) {
    if (held?.long) event.preventDefault()
  }
  function key(event: KeyboardEvent) {
    byKeys = true
    held = undefined
    if (event.key === 'Escape') hide()
  }
  /** A press moves the focus too: what it shows stays. */
  function focused(event: FocusEvent) {
    if (!byKeys) return
    hide()
    const e = titled(event)
    if (e) timer = window.setTimeout(() => show(e), hold)
  }

  const listened: [string, (event: never) => void][] = [
    ['pointerdown', down],
    ['pointermove', move],
    ['pointerup', up],
    ['pointercancel', hide],
    ['click', click],
    ['contextmenu', menu],
    ['keydown', key],
    ['focusin', focused],
    ['focusout', () => byKeys && hide()],
    ['scroll', hide],
  ]
  onMounted(() => listened.forEach(([name, run]) => addEventListener(name, run as EventListener, true)))
  onBeforeUnmount(() =>
    listened.forEach(([name, run]) => removeEventListener(name, run as EventListener, true)),
  )
  return shown
}
