import { Problem, sendPiece, type HeardSoFar } from '../api/client'

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

/**
 * Sends what comes in to a recording, one piece at a time and in order. What has not arrived is sent again, so
 * that a server that does not answer for a moment costs nothing.
 */
export class PieceSender {
  private waiting: Uint8Array[] = []
  private at = 0
  private sending?: Promise<void>
  private faults = 0
  private stopped = false
  /** Seconds of the sound at which the tune begins, once that is known. */
  start?: number

  constructor(
    private readonly id: string,
    private readonly heard: (answer: HeardSoFar) => void,
    private readonly trouble: (problem: Problem | undefined) => void,
    private readonly send = sendPiece,
    private readonly pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms)),
  ) {}

  /** Takes bytes in; they go as soon as the piece before has arrived. */
  add(bytes: Uint8Array) {
    if (this.stopped) return
    this.waiting.push(bytes)
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

  private async sendAll() {
    while (this.waiting.length) {
      const pieces = this.waiting.splice(0)
      const piece = new Blob(pieces as BlobPart[])
      try {
        const answer = await this.send(this.id, this.at, piece, this.start)
        this.at = answer.have
        if (this.faults) this.trouble(undefined)
        this.faults = 0
        this.heard(answer)
      } catch (error) {
        if (this.stopped) return
        const problem = error instanceof Problem ? error : new Problem(0, String(error))
        this.trouble(problem)
        const have = problem.status === 409 ? Number(problem.fields[0]?.value) : NaN
        if (Number.isFinite(have) && have >= this.at && have <= this.at + piece.size) {
          // A part of it has arrived: the answer was lost. Go on from there.
          this.waiting.unshift(new Uint8Array(await piece.slice(have - this.at).arrayBuffer()))
          this.at = have
        } else if (problem.status === 0 || problem.status >= 500) {
          this.waiting.unshift(...pieces)
        } else return // what is refused is refused
        await this.pause(pauses[Math.min(this.faults++, pauses.length - 1)]!)
      }
    }
  }
}
