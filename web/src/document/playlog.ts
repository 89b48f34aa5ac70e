/** A tune that was played for less than so many seconds was only listened to. */
export const leastPlayed = 30

/** Adds up how long a tune was played, pauses left out, until it is noted down. */
export class PlayedTime {
  private seconds = 0
  private since: number | undefined
  began: Date | undefined

  start(now: number, at = new Date()) {
    this.since ??= now
    this.began ??= at
  }
  stop(now: number) {
    if (this.since !== undefined) this.seconds += (now - this.since) / 1000
    this.since = undefined
  }
  /** What is to be noted down, and nothing where it is too little; then it begins anew. */
  take(now: number): { began: Date; seconds: number } | undefined {
    this.stop(now)
    const { seconds, began } = this
    this.seconds = 0
    this.began = undefined
    return began && seconds >= leastPlayed ? { began, seconds: Math.round(seconds) } : undefined
  }
}
