import { answer, client, type PerformanceRequest } from '../api/client'
import type { Source } from './machine'
import type { Bars } from './passes'
import type { Chunk } from './transport'

/** A tempo that rises each time round, in percent of the tune's. */
export interface Ramp {
  from: number
  to: number
  by: number
}

/** The speed of a round, counted from 0: it rises until it is there, and stays. */
export const rampSpeed = ({ from, to, by }: Ramp, round: number) => Math.min(from + by * round, to)

/**
 * Plays a line over some bars: once, or round and round while that is wished. What is ramped goes
 * round by itself, faster each time.
 */
export function lineSource(
  request: PerformanceRequest,
  wishes: {
    loop: () => Bars | 'all' | undefined
    overTune: boolean
    style: () => Partial<PerformanceRequest>
    ramp?: Ramp
    /** Its chart is shown while it sounds, in place of the tune's. */
    showsChart?: boolean
  },
): Source {
  let round = 0
  async function ask(chorus: number): Promise<Chunk> {
    const loop = wishes.loop()
    const bars =
      wishes.overTune && loop && loop !== 'all' ? { from: loop.from, bars: loop.to - loop.from + 1 } : {}
    const performance = await answer(
      client.POST('/api/compute/band/performance', {
        body: {
          ...{ ...wishes.style(), ...request, ...bars, chorus },
          ...(chorus > 0 && { countIn: 0 }),
          ...(wishes.ramp && { speed: rampSpeed(wishes.ramp, chorus) }),
        },
      }),
    )
    return { performance, ...(wishes.showsChart && { ownChart: request.chart }) }
  }
  return {
    first: () => ask(0),
    after: () => (wishes.loop() || wishes.ramp ? ask(++round) : Promise.resolve(undefined)),
    loopChunk: () => Promise.resolve(undefined),
    refreshed: () => Promise.resolve(undefined),
    endNext: () => {},
  }
}
