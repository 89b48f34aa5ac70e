import { reactive, watch } from 'vue'

/**
 * What the player has changed about the keys, on this device: other keys for things, and whether
 * single characters are keys at all (WCAG 2.2, 2.1.4: who speaks to the computer or strikes keys by
 * mistake switches them off).
 */
interface KeyChoices {
  charactersOff: boolean
  /** The key that is chosen, by the key that is usual; an empty one is none. */
  instead: Record<string, string>
}

const stored = 'undaris.keys'

function remembered(): KeyChoices {
  try {
    const read = JSON.parse(localStorage.getItem(stored) ?? '{}') as Partial<KeyChoices>
    return { charactersOff: read.charactersOff === true, instead: { ...read.instead } }
  } catch {
    return { charactersOff: false, instead: {} }
  }
}

export const keyChoices = reactive(remembered())
watch(keyChoices, (now) => localStorage.setItem(stored, JSON.stringify(now)))

/** The key that does what a key usually does, by its name; nothing where it has none. */
export function keyInForce(usual: string): string | undefined {
  const key = keyChoices.instead[usual] ?? usual
  const character = [...key].length === 1 && key !== ' '
  return key === '' || (character && keyChoices.charactersOff) ? undefined : key
}

export function chooseKey(usual: string, key: string) {
  if (key.toLowerCase() === usual.toLowerCase()) delete keyChoices.instead[usual]
  else keyChoices.instead[usual] = key
}

export function usualKeys() {
  keyChoices.charactersOff = false
  keyChoices.instead = {}
}
