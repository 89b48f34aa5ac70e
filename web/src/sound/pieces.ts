import { Problem, sendPiece, type HeardSoFar } from '../api/client'
import type { Spool, SpooledPiece } from './spool'

/** The pauses after which a piece that did not arrive is sent again, in ms. */
const pauses = [200, 500, 1000, 2000]

/** Samples from -1 to 1 as whole numbers of 16 bits, the lower byte first. */
export function pcm16(samples: Float32Array): Uint8Array {
  const bytes = new DataView(new ArrayBuffer(2 * samples.length))
  samples.forEach((sample, n) => {
    const value = Math.round(Math.max(-1, Math.min(1, sample || 0)) * 32767)
    bytes.setInt16(2 * n, value, true)
  })
  return new Uint8Array(bytes.buffer)
}

/** How much of a file goes at a time: well below what a request may hold. */
const filePiece = 900_000

/** Sends a whole file to a recording, and says which share has gone. */
export async function sendFile(
  id: string,
  file: Blob,
  gone: (share: number) => void,
  send: (id: string, at: number, piece: Blob) => Promise<unknown> = sendPiece,
) {
  for (let at = 0; at < file.size; at += filePiece) {
    gone(at / file.size)
    await send(id, at, file.slice(at, at + filePiece))
  }
}

/** How much of what waits goes at a time: well below what a request may hold, and soon there over a slow network. */
export const mostBytes = 256 << 10

/** What is given to a sender beside its recording; tests give their own. */
interface Terms {
  send?: typeof sendPiece
  pause?: (ms: number) => Promise<void>
  /** Where pieces lie as long as they have not arrived; without one they wait in the page alone. */
  spool?: Spool
}

/** What has come in and not arrived. */
interface Waiting {
  bytes: Uint8Array
  /** It lies in the spool too, under the byte it begins at. */
  spooledAt?: number
}

/**
 * Sends what comes in to a recording, one piece at a time and in order. What has not arrived waits, however long the
 * server is away, and is sent again; nothing is dropped but what the server says that it will never take.
 */
export class PieceSender {
  private waiting: Waiting[] = []
  private at = 0
  private sending?: Promise<void>
  private faults = 0
  private stopped = false
  /** The server takes no more of it; what comes now is lost, and said to be. */
  refused = false
  /** Seconds of the sound at which the tune begins, once that is known. */
  start?: number
  private readonly send: typeof sendPiece
  private readonly pause: (ms: number) => Promise<void>
  private readonly spool?: Spool

  constructor(
    private readonly id: string,
    private readonly heard: (answer: HeardSoFar) => void,
    private readonly trouble: (problem: Problem | undefined) => void,
    terms: Terms = {},
  ) {
    this.send = terms.send ?? sendPiece
    this.pause = terms.pause ?? ((ms) => new Promise((done) => setTimeout(done, ms)))
    this.spool = terms.spool
  }

  /** How many bytes have come in and not arrived. */
  get left(): number {
    return this.waiting.reduce((sum, { bytes }) => sum + bytes.length, 0)
  }

  /** Takes bytes in; they go as soon as the piece before has arrived. */
  add(bytes: Uint8Array) {
    if (this.stopped || this.refused) return
    for (let at = 0; at < bytes.length; at += mostBytes)
      this.waiting.push({ bytes: bytes.subarray(at, at + mostBytes) })
    this.sending ??= this.sendAll().finally(() => (this.sending = undefined))
  }

  /** Sends nothing more; settled when what was on its way has arrived, or not. */
  async stop() {
    this.stopped = true
    this.waiting = []
    await this.sending
  }

  /** Settled when everything has arrived, or cannot. */
  async settled() {
    while (this.sending) await this.sending
  }

  /** The first of what waits, as much as goes at a time: whole pieces as they came in. */
  private next(): Waiting[] {
    let size = 0
    const over = this.waiting.findIndex(
      ({ bytes }, n) => n > 0 && (size += bytes.length) + this.waiting[0]!.bytes.length > mostBytes,
    )
    return this.waiting.splice(0, over < 0 ? this.waiting.length : over)
  }

  private async sendAll() {
    while (this.waiting.length) {
      const pieces = this.next()
      const piece = new Blob(pieces.map(({ bytes }) => bytes) as BlobPart[])
      try {
        const answer = await this.send(this.id, this.at, piece, this.start)
        this.at = answer.have
        if (this.faults) this.trouble(undefined)
        this.faults = 0
        await this.forget(pieces)
        this.heard(answer)
      } catch (error) {
        if (this.stopped) return
        const problem = error instanceof Problem ? error : new Problem(0, String(error))
        const have = problem.status === 409 ? Number(problem.fields[0]?.value) : NaN
        if (Number.isFinite(have) && have >= this.at && have <= this.at + piece.size) {
          // A part of it has arrived: the answer was lost. Go on from there.
          const rest = new Uint8Array(await piece.slice(have - this.at).arrayBuffer())
          await this.forget(pieces)
          this.at = have
          if (rest.length) this.waiting.unshift({ bytes: rest })
          continue
        }
        this.trouble(problem)
        this.waiting.unshift(...pieces)
        if (!isAway(problem)) {
          this.refused = true
          return
        }
        await this.keepWaiting()
        await this.pause(pauses[Math.min(this.faults++, pauses.length - 1)]!)
      }
    }
  }

  /** While the server is away what waits is kept in the spool, in pieces that go at a time. */
  private async keepWaiting() {
    if (!this.spool) return
    const joined: Waiting[] = []
    let at = this.at
    while (this.waiting.length) {
      const pieces = this.next()
      const bytes = new Uint8Array(await new Blob(pieces.map((one) => one.bytes) as BlobPart[]).arrayBuffer())
      const lies = pieces.length === 1 && pieces[0]!.spooledAt === at
      // Where the browser keeps nothing, or has no room, what waits is in the page still.
      const spooled = lies || (await this.intoSpool({ id: this.id, at, bytes, start: this.start }, pieces))
      joined.push({ bytes, spooledAt: spooled ? at : undefined })
      at += bytes.length
    }
    this.waiting.unshift(...joined)
  }

  private async intoSpool(piece: SpooledPiece, instead: Waiting[]): Promise<boolean> {
    try {
      await this.spool!.put(piece)
      for (const { spooledAt } of instead)
        if (spooledAt !== undefined && spooledAt !== piece.at) await this.spool!.remove(this.id, spooledAt)
      return true
    } catch {
      return false
    }
  }

  private async forget(pieces: Waiting[]) {
    for (const { spooledAt } of pieces)
      if (spooledAt !== undefined) await this.spool?.remove(this.id, spooledAt).catch(() => {})
  }
}

/** Whether a problem is one of the network or of a server that is away or busy, and it makes sense to send again. */
const isAway = ({ status }: Problem) =>
  status === 0 || status === 408 || status === 409 || status === 429 || status >= 500

/**
 * Sends what an earlier page has left in the spool. What arrives is taken out of it; so is what belongs to a recording that
 * the server does not have any more. Returns how many recordings were completed.
 */
export async function sendSpooled(spool: Spool, send = sendPiece): Promise<number> {
  let completed = 0
  for (const [id, pieces] of await spool.left()) {
    let arrived = true
    for (const { at, bytes, start } of pieces) {
      try {
        await send(id, at, new Blob([bytes as BlobPart]), start)
      } catch (error) {
        const problem = error instanceof Problem ? error : new Problem(0, String(error))
        const have = problem.status === 409 ? Number(problem.fields[0]?.value) : NaN
        if (isAway(problem) && problem.status !== 409) {
          arrived = false
          break
        }
        // A part of it may be there already.
        if (have > at && have < at + bytes.length)
          await send(id, have, new Blob([bytes.slice(have - at) as BlobPart]), start).catch(
            () => (arrived = false),
          )
      }
      if (arrived) await spool.remove(id, at)
    }
    if (arrived) completed++
  }
  return completed
}
