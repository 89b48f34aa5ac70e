import type { usePlayer } from './player'
import type { Chunk } from './transport'

/** How often it is read where the band is, in ms, and how many readings are enough. */
const every = 150
const enough = 60
/** How many seconds a reading lies beside the others where the same chorus goes round again. */
const roundAgain = 0.5

/** A moment that the band is heard at: the tick of its chorus, from the first bar on, and the length of a tick in seconds. */
export const bandAt = (player: ReturnType<typeof usePlayer>) => placed(player, player.heard())

/** The same of what is sent to the sound device now: the way to the ear is no part of it, whatever the browser says of it. */
const bandSentAt = (player: ReturnType<typeof usePlayer>) => placed(player, player.sent())

function placed(player: ReturnType<typeof usePlayer>, at: ReturnType<typeof player.heard>) {
  if (!at) return undefined
  const { performance } = at.chunk
  const { speed } = player
  return {
    ...{ tick: at.tick - performance.countIn, chunk: at.chunk, speed },
    perTick: 60 / (performance.tempo * performance.beatTicks) / (speed / 100),
  }
}

/** The middle of some numbers. */
const middle = (of: number[]) => of.toSorted((a, b) => a - b)[Math.floor(of.length / 2)]!

/**
 * A chorus that the band has played, and at which second of what comes in it was sent to the sound device: it lies there
 * as much later as the whole way out and in again takes, which is taken off once (the delay of the input).
 */
export interface HeardPass {
  start: number
  /** Seconds a tick, and the percentage of the tempo that this is. */
  perTick: number
  speed: number
  chunk: Chunk
}

/**
 * Says again and again, while the band plays, at which second of what comes in each chorus began: the middle of
 * the readings so far, which all agree where both have the audio clock. Call what it returns to end it.
 */
export function followPasses(
  player: ReturnType<typeof usePlayer>,
  seconds: () => number,
  tell: (passes: HeardPass[]) => void,
): () => void {
  const passes: (HeardPass & { found: number[] })[] = []
  const timer = setInterval(() => {
    const at = bandSentAt(player)
    const came = seconds()
    if (!at || !came) return // nothing comes in yet
    const start = came - at.tick * at.perTick
    let now = passes.at(-1)
    if (!now || now.chunk !== at.chunk || Math.abs(start - now.start) > roundAgain)
      passes.push((now = { chunk: at.chunk, perTick: 0, speed: 100, start, found: [] }))
    if (now.found.length > enough) return
    now.found.push(start)
    now.start = middle(now.found)
    now.perTick = at.perTick
    now.speed = at.speed
    tell(passes)
  }, every)
  return () => clearInterval(timer)
}
