import { answer, client, type PerformanceRequest } from '../api/client'
import type { Source } from './machine'
import type { Bars } from './passes'
import type { Chunk } from './transport'

/** Plays a line over some bars: once, or round and round while that is wished. */
export function lineSource(
  request: PerformanceRequest,
  wishes: {
    loop: () => Bars | 'all' | undefined
    overTune: boolean
    style: () => Partial<PerformanceRequest>
  },
): Source {
  let round = 0
  async function ask(chorus: number): Promise<Chunk> {
    const loop = wishes.loop()
    const bars =
      wishes.overTune && loop && loop !== 'all' ? { from: loop.from, bars: loop.to - loop.from + 1 } : {}
    const performance = await answer(
      client.POST('/api/compute/band/performance', {
        body: { ...wishes.style(), ...request, ...bars, chorus, ...(chorus > 0 && { countIn: 0 }) },
      }),
    )
    return { performance }
  }
  return {
    first: () => ask(0),
    after: () => (wishes.loop() ? ask(++round) : Promise.resolve(undefined)),
    loopChunk: () => Promise.resolve(undefined),
    refreshed: () => Promise.resolve(undefined),
    endNext: () => {},
  }
}
