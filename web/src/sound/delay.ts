/** What this browser keeps; nothing where it keeps nothing, as in some private windows. */
export function kept(name: string): string | null {
  try {
    return localStorage.getItem(name)
  } catch {
    return null
  }
}
export function keep(name: string, value: string) {
  try {
    localStorage.setItem(name, value)
  } catch {
    // It holds as long as the page does.
  }
}

/** The delays of the inputs that were measured, in ms, by device. */
const key = (device: string) => `undaris-delay-${device || 'first'}`

/** How many milliseconds what is played to the band comes in late through a device; nothing where it was not measured. */
export function delayOf(device: string): number | undefined {
  const ms = kept(key(device))
  return ms === null || !Number.isFinite(Number(ms)) ? undefined : Number(ms)
}

export const keepDelay = (device: string, ms: number) => keep(key(device), String(Math.round(ms * 10) / 10))

/**
 * The delay of a loop: how much later clicks come back than they were sent, the middle of all that did; none
 * where fewer than half did. Times are seconds.
 */
export function loopDelay(sent: number[], heard: number[]): number | undefined {
  const late = sent
    .map((at) => heard.find((back) => back > at - 0.05 && back < at + 0.45))
    .flatMap((back, n) => (back === undefined ? [] : [back - sent[n]!]))
    .sort((a, b) => a - b)
  if (late.length * 2 < sent.length || !late.length) return undefined
  return late[Math.floor(late.length / 2)]
}
