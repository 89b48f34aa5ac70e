import { answer, client, type PassPlace, type PassRequest } from '../api/client'
import type { Source } from './machine'
import type { Chunk } from './transport'

export interface Bars {
  from: number
  to: number
}

/** What a tune is played by; read anew for every pass, so that a change is heard in the next. */
export interface Wishes {
  /** Settled when there is something to request. */
  ready?: () => Promise<void>
  /** The request without what says which pass it is. */
  request: () => Omit<PassRequest, 'after' | 'at' | 'skip' | 'loop'>
  /** The bars that are looped; without bars the whole pass is. */
  loop: () => Bars | 'all' | undefined
  /** The line of a chorus, counted from 0. */
  line: (chorus: number) => Promise<PassRequest['line']>
}

/** Plays a tune by its routine, pass after pass. */
export function passSource(wishes: Wishes, startAt?: number): Source {
  /** The last pass has been asked for with an ending. */
  let ending = false
  let endNext = false
  /** Asks for a pass; from is the chunk whose place it is found by. */
  async function ask(
    which: Pick<PassRequest, 'after' | 'at' | 'skip' | 'ending'>,
    loop: Bars | undefined,
    from?: Chunk,
    once?: boolean,
  ): Promise<Chunk | undefined> {
    const chorus = which.at?.chorus ?? (which.after?.chorus ?? -1) + 1
    const line = await wishes.line(chorus)
    const request = wishes.request()
    const tune = { tonic: request.chart.key.tonic, tempo: request.chart.tempo }
    const place = which.at
      ? { at: inTheTuneNow(which.at, from?.tune, tune) }
      : which.after && { after: inTheTuneNow(which.after, from?.tune, tune) }
    const pass = await answer(
      client.POST('/api/compute/band/pass', {
        body: { ...request, ...which, ...place, ...(loop && { loop, once }), ...(line && { line }) },
      }),
    )
    if (pass.finished) return undefined
    if (which.ending) ending = true
    return { performance: pass.performance, pass, tune, ...(loop && { loop, once }) }
  }

  const again = (place: PassPlace): PassPlace => ({ ...place, chorus: place.chorus + 1 })

  return {
    async first() {
      await wishes.ready?.()
      const loop = wishes.loop()
      if (loop && loop !== 'all') return ask({}, loop)
      if (startAt && startAt > 1) {
        const whole = await ask({}, undefined)
        const last = whole?.pass?.bars
        if (whole && last && startAt <= last) return ask({}, { from: startAt, to: last }, undefined, true)
        return whole
      }
      return ask({}, undefined)
    },
    async after(before, skip) {
      if (ending || !before.pass) return undefined
      const { place } = before.pass
      const loop = wishes.loop()
      const end = endNext ? { ending: true } : {}
      if (skip) return ask({ after: place, skip: true }, undefined, before)
      if (loop) return ask({ at: again(place), ...end }, loop === 'all' ? before.loop : loop, before)
      const last = before.pass.bars
      if (before.loop && before.loop.to < last)
        return ask({ at: again(place), ...end }, { from: before.loop.to + 1, to: last }, before, true)
      return ask({ after: place, ...end }, undefined, before)
    },
    async loopChunk(present) {
      const loop = wishes.loop()
      if (!present.pass || !loop || loop === 'all') return undefined
      return ask({ at: again(present.pass.place) }, loop, present)
    },
    refreshed: (chunk, end) =>
      chunk.pass
        ? ask({ at: chunk.pass.place, ...(end && { ending: true }) }, chunk.loop, chunk, chunk.once)
        : Promise.resolve(undefined),
    endNext() {
      ending = false
      endNext = true
    },
  }
}

/** A place in the tune as it is now: what was the tune's own key and tempo still is. */
function inTheTuneNow(place: PassPlace, was: Chunk['tune'], now: NonNullable<Chunk['tune']>): PassPlace {
  return {
    ...place,
    tonic: place.tonic === was?.tonic ? now.tonic : place.tonic,
    tempo: place.tempo === was?.tempo ? now.tempo : place.tempo,
  }
}
