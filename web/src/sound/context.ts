/**
 * The audio context of the page: one for all that sounds and all that is recorded, so that both have one clock, and what
 * is recorded lies beside the band to the sample.
 */
let context: AudioContext | undefined

export function audioContext(): AudioContext {
  context ??= new AudioContext()
  return context
}

/** Seconds from the clock to the ear, as the browser says; 0 where it says nothing, or nothing was played yet. */
export const outputLatency = (): number => (context && (context.outputLatency || context.baseLatency)) || 0
