/** The delays of the inputs that were measured, in ms, by device; kept in this browser. */
const key = (device: string) => `undaris-delay-${device || 'first'}`

/** How many milliseconds the sound of a device is late; 0 where it was not measured. */
export const delayOf = (device: string): number => Number(localStorage.getItem(key(device))) || 0

export const keepDelay = (device: string, ms: number) =>
  localStorage.setItem(key(device), String(Math.round(ms * 10) / 10))

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
