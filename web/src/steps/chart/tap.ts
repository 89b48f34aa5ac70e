/** A tap that comes later than this, in milliseconds, begins anew: a beat at 20 a minute lasts 3 s. */
const longest = 3200
/** How many of the last taps are averaged. */
const remembered = 8

/** Taps in time become a tempo in beats a minute, from the second tap on. */
export function useTap(set: (tempo: number) => void): () => void {
  let taps: number[] = []
  return () => {
    const now = performance.now()
    if (now - (taps.at(-1) ?? 0) > longest) taps = []
    taps = [...taps, now].slice(-remembered)
    const first = taps[0] ?? now
    if (taps.length > 1) set(Math.round((60_000 * (taps.length - 1)) / (now - first)))
  }
}
