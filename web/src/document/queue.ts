/**
 * Work that is done one piece after the other, so that each sees what the one before
 * left. A piece that fails does not stop those behind it.
 */
export class Queue {
  private last: Promise<unknown> = Promise.resolve()
  private waiting = 0

  /** Whether anything is being done, or waits to be. */
  get busy(): boolean {
    return this.waiting > 0
  }

  add<T>(work: () => Promise<T> | T): Promise<T> {
    this.waiting++
    const mine = this.last.then(work)
    this.last = mine.then(
      () => this.waiting--,
      () => this.waiting--,
    )
    return mine
  }

  /** Waits until all that was added so far is done, whether it failed or not. */
  async idle(): Promise<void> {
    await this.last
  }
}
