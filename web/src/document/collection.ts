import { Kept, type Kind } from './kept'

/** How many documents of a kind stay in memory with their history. */
export const mostOpen = 24

/** The documents of one kind that were opened, each with its own history. */
export class Collection<Body, Shown> {
  private readonly open = new Map<number, Kept<Body, Shown>>()

  constructor(private readonly kind: Kind<Body, Shown>) {}

  /** The document of an id, as it was left. */
  of(id: number): Kept<Body, Shown> {
    const known = this.open.get(id)
    if (known) this.open.delete(id)
    const one = known ?? new Kept(this.kind, id)
    this.open.set(id, one)
    for (const [old, other] of this.open) {
      if (this.open.size <= mostOpen) break
      if (old !== id && !other.saver.unsaved.value) this.open.delete(old)
    }
    return one
  }

  /** The document of an id, if it has been opened. */
  peek(id: number): Kept<Body, Shown> | undefined {
    return this.open.get(id)
  }

  /** A document that is not kept yet; it is found by its id once it is. */
  fresh(): Kept<Body, Shown> {
    return new Kept(this.kind)
  }

  /** Finds a document that has been given its id by its id from now on. */
  adopt(one: Kept<Body, Shown>) {
    if (one.id.value) this.open.set(one.id.value, one)
  }

  /** Forgets a document, so that it is read anew. */
  forget(id: number) {
    this.open.delete(id)
  }
}
