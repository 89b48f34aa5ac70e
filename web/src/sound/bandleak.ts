import { answer, client, type KeptTake } from '../api/client'
import type { HeardPass } from './barone'
import type { Mix } from './mixer'
import { sendFile } from './pieces'
import { renderPieces } from './render'
import type { Chunk } from './transport'
import { frames, wav } from './wav'

/** How many seconds of a take the band is looked for in. */
const most = 600

/**
 * Looks for the band in a take that was played through a microphone: what the band played is rendered again and handed to
 * the server, which hears the take without it. Answers what was found, in words; empty where nothing was.
 */
export async function findBandIn(
  take: KeptTake,
  passes: HeardPass[],
  mix: Mix,
  signal: AbortSignal,
): Promise<string> {
  const first = passes[0]
  if (!first || !take.sound || take.sound.seconds > most) return ''
  async function* chunks(): AsyncGenerator<Chunk> {
    for (const { chunk } of passes) yield chunk
  }
  const pieces: ArrayBuffer[] = []
  await renderPieces(chunks(), mix, first.speed / 100, (piece) => pieces.push(frames(piece)), signal)
  const { id: takeId, version, chartId, name, began, chart, hands } = take
  // It is the band's own sound: of the take it says no more than what it belongs to.
  const about = { name, began, chart, hands, source: 'file' as const, start: 0, notes: [] }
  const body = { kind: 'file' as const, chartId, take: about }
  const { id } = await answer(client.POST('/api/recordings', { body }))
  const path = { id }
  try {
    await sendFile(id, wav(pieces), () => signal.throwIfAborted())
    const sent = first.start - first.chunk.performance.countIn * first.perTick
    const asked = { takeId, version, start: sent + (take.delay ?? 0) / 1000 }
    const found = await answer(client.POST('/api/recordings/{id}/leak', { params: { path }, body: asked }))
    return found.text
  } catch (error) {
    await client.DELETE('/api/recordings/{id}', { params: { path } }).catch(() => {})
    throw error
  }
}
