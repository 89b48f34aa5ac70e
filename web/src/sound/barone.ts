import type { usePlayer } from './player'
import type { Chunk } from './transport'

/** How often it is read where the band is, in ms, and how many readings are enough. */
const every = 150
const enough = 60
/** How many seconds a reading lies beside the others where the same chorus goes round again. */
const roundAgain = 0.5

/** A moment that the band is heard at: the tick of its chorus, from the first bar on, and the length of a tick in seconds. */
export function bandAt(player: ReturnType<typeof usePlayer>) {
  const heard = player.heard()
  if (!heard) return undefined
  const { performance } = heard.chunk
  const { speed } = player
  return {
    ...{ tick: heard.tick - performance.countIn, chunk: heard.chunk, speed },
    perTick: 60 / (performance.tempo * performance.beatTicks) / (speed / 100),
  }
}

/** The middle of some numbers. */
const middle = (of: number[]) => of.toSorted((a, b) => a - b)[Math.floor(of.length / 2)]!

/** A chorus that the band has played, and at which second of what comes in it began. */
export interface HeardPass {
  start: number
  /** Seconds a tick, and the percentage of the tempo that this is. */
  perTick: number
  speed: number
  chunk: Chunk
}

/**
 * Says again and again, while the band plays, at which second of what comes in each chorus began: the middle of
 * the readings so far. Call what it returns to end it.
 */
export function followPasses(
  player: ReturnType<typeof usePlayer>,
  seconds: () => number,
  tell: (passes: HeardPass[]) => void,
): () => void {
  const passes: (HeardPass & { found: number[] })[] = []
  const timer = setInterval(() => {
    const at = bandAt(player)
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
