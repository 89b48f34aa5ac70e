import { defineStore } from 'pinia'
import { ref } from 'vue'
import { answer, client, type PassRequest, type PerformanceRequest, type Segment } from '../api/client'
import { useBand } from '../document/band'
import { useTune } from '../document/tune'
import { parts, type Part } from './mixer'
import { download } from './download'
import { usePlayer } from './player'
import { passSource } from './passes'
import { renderPieces } from './render'
import type { Chunk } from './transport'
import { frames, wav } from './wav'

/** What of the tune is taken away. */
export interface Wanted {
  /** The routine as it is chosen, or so many choruses with the band. */
  choruses?: number
  parts: Part[]
  ending: boolean
}

/** At most so many passes: about two hours. */
const mostPasses = 300

/** Writes what is played as files. */
export const useExporting = defineStore('exporting', () => {
  const tune = useTune()
  const player = usePlayer()
  const band = useBand()
  /** Seconds of sound that are rendered, of how many that are known; nothing while nothing is. */
  const rendered = ref<{ seconds: number; of: number }>()
  let stopping: AbortController | undefined

  /** The passes of the tune that are wanted, one after the other. */
  async function* passesOf(wanted: Wanted, signal: AbortSignal): AsyncGenerator<Chunk> {
    const request = () => {
      const asked = { ...player.passRequest(), inFile: true }
      if (!wanted.choruses) return asked
      const segments: Segment[] = [{ name: 'choruses', choruses: wanted.choruses }]
      return { ...asked, routine: { name: 'choruses', segments } }
    }
    const source = passSource({ ready: band.whenChosen, request, loop: () => undefined, line: player.lineOf })
    let chunk = await source.first()
    for (let count = 1; chunk && count <= mostPasses; count++) {
      signal.throwIfAborted()
      const next: Chunk | undefined = count === mostPasses ? undefined : await source.after(chunk, false)
      if (!next && wanted.ending) chunk = (await source.refreshed(chunk, true)) ?? chunk
      yield chunk
      chunk = next
    }
  }

  async function render(
    name: string,
    chunks: (signal: AbortSignal) => AsyncIterable<Chunk>,
    heard: Part[],
    of: number,
  ) {
    stopping?.abort()
    const mine = new AbortController()
    stopping = mine
    rendered.value = { seconds: 0, of }
    const pieces: ArrayBuffer[] = []
    try {
      const mix = { ...player.mix, muted: parts.filter((part) => !heard.includes(part)) }
      const done = renderPieces(
        chunks(mine.signal),
        mix,
        player.speed / 100,
        (piece, seconds) => {
          if (mine.signal.aborted) return
          pieces.push(frames(piece))
          rendered.value = { seconds, of: Math.max(of, seconds) }
        },
        mine.signal,
      )
      // Stopped it is over at once, whatever it waits for.
      done.catch(() => {})
      await Promise.race([done, aborted(mine.signal)])
      download(wav(pieces), `${name}.wav`)
    } catch (error) {
      if (!mine.signal.aborted) tune.tell(error)
    } finally {
      if (stopping === mine) {
        stopping = undefined
        rendered.value = undefined
      }
    }
  }

  /** Takes the tune away as sound. */
  const tuneAsSound = (name: string, wanted: Wanted, seconds: number) =>
    render(name, (signal) => passesOf(wanted, signal), wanted.parts, seconds)

  /** Takes a line over some bars away as sound. */
  const lineAsSound = (name: string, request: PerformanceRequest) =>
    render(name, () => lineOf(request), parts, 0)
  async function* lineOf(request: PerformanceRequest): AsyncGenerator<Chunk> {
    yield {
      performance: await answer(
        client.POST('/api/compute/band/performance', { body: { hands: tune.hands, ...request } }),
      ),
    }
  }

  /** Takes the tune away as a MIDI file. */
  async function tuneAsMidi(name: string, wanted: Wanted) {
    try {
      await band.whenChosen()
      const request: PassRequest = player.passRequest()
      const lines = await player.allLines()
      const body = {
        ...request,
        chart: tune.chart!,
        ...(lines && { lines }),
        ...(wanted.choruses && {
          routine: { name: 'choruses', segments: [{ choruses: wanted.choruses }] },
        }),
        parts: wanted.parts,
        ending: wanted.ending,
      }
      const blob = await answer(client.POST('/api/compute/band/midi', { body, parseAs: 'blob' }))
      download(blob as unknown as Blob, `${name}.mid`)
    } catch (error) {
      tune.tell(error)
    }
  }

  return { rendered, stop: () => stopping?.abort(), tuneAsSound, lineAsSound, tuneAsMidi }
})

/** Fails when a signal says so. */
const aborted = (signal: AbortSignal) =>
  new Promise<never>((_, stop) => signal.addEventListener('abort', () => stop(signal.reason)))
