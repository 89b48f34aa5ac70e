import { computed, ref } from 'vue'
import type { KeyBinding } from '../../controls/keys'

/** What a pedal can do, by the name it is kept by. */
export const actions = {
  play: 'play and stop',
  segment: 'on to the next segment',
  finish: 'end well',
  loop: 'loop on and off',
  faster: 'faster',
  slower: 'slower',
  chords: 'chords heard or silent',
  nothing: 'nothing',
} as const
export type Action = keyof typeof actions

/** The keys that page-turner pedals send. */
export const pedals = [
  { key: 'PageDown', shown: 'page ↓', does: 'segment' },
  { key: 'PageUp', shown: 'page ↑', does: 'play' },
  { key: 'ArrowDown', shown: '↓', does: 'slower' },
  { key: 'ArrowUp', shown: '↑', does: 'faster' },
  { key: 'Enter', shown: '⏎', does: 'play' },
] as const satisfies { key: string; shown: string; does: Action }[]

const keptAs = 'undaris.pedals'

function kept(): Record<string, Action> {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(keptAs) ?? '{}')
    const all = Object.entries(typeof read === 'object' && read ? read : {})
    return Object.fromEntries(all.filter(([, action]) => String(action) in actions))
  } catch {
    return {}
  }
}

const assigned = ref(kept())

/** What the keys of pedals do; a pedal belongs to a device, so this browser keeps it. */
export function usePedals(run: Record<Exclude<Action, 'nothing'>, () => void>) {
  const does = (key: string): Action =>
    assigned.value[key] ?? pedals.find((p) => p.key === key)?.does ?? 'nothing'
  function assign(key: string, action: Action) {
    assigned.value = { ...assigned.value, [key]: action }
    try {
      localStorage.setItem(keptAs, JSON.stringify(assigned.value))
    } catch {
      // A browser that keeps nothing forgets it with the page.
    }
  }
  const bindings = computed<KeyBinding[]>(() =>
    pedals.flatMap(({ key, shown }) => {
      const action = does(key)
      return action === 'nothing' ? [] : [{ key, shown, says: actions[action], run: run[action] }]
    }),
  )
  return { does, assign, bindings }
}
