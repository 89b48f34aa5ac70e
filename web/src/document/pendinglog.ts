import { answer, client, Problem, type LogEntry } from '../api/client'
import { newUid } from './uid'

/** An entry of the practice log with the name that keeps it from being kept twice. */
export type NamedEntry = LogEntry & { uid: string }

const place = 'undaris practice log'

/** What is to be noted down and could not be yet; it lies in the browser until it is. */
export class PendingLog {
  constructor(
    private readonly store: Pick<Storage, 'getItem' | 'setItem'>,
    private readonly send: (entry: NamedEntry) => Promise<unknown>,
  ) {}

  get waiting(): NamedEntry[] {
    try {
      return JSON.parse(this.store.getItem(place) ?? '[]') as NamedEntry[]
    } catch {
      return []
    }
  }

  private keep(entries: NamedEntry[]) {
    this.store.setItem(place, JSON.stringify(entries))
  }

  /** Lays an entry by, to be sent with the next flush. */
  add(entry: NamedEntry) {
    this.keep([...this.waiting.filter((one) => one.uid !== entry.uid), entry])
  }

  /** The sending that goes on, or the last one. */
  private sending: Promise<unknown> = Promise.resolve()

  /**
   * Sends what waits, in order. What the server refuses is left out and reported; while it does not
   * answer, the rest goes on waiting. Asked for while it goes on, it sends what is left after that.
   */
  flush(): Promise<Problem | undefined> {
    const sent = this.sending.then(() => this.sendAll())
    this.sending = sent.catch(() => undefined)
    return sent
  }

  private async sendAll(): Promise<Problem | undefined> {
    let refused: Problem | undefined
    for (const entry of this.waiting) {
      try {
        await this.send(entry)
      } catch (error) {
        if (!(error instanceof Problem) || error.isFault) return error instanceof Problem ? error : refused
        refused = error
      }
      this.keep(this.waiting.filter((one) => one.uid !== entry.uid))
    }
    return refused
  }
}

export const pendingLog = new PendingLog(localStorage, (body) =>
  answer(client.POST('/api/practice/log', { body })),
)

/** Notes an entry down: now, or as soon as the server is there. */
export function noteDown(entry: LogEntry, uid: string = newUid()) {
  pendingLog.add({ ...entry, uid })
  return pendingLog.flush()
}
