import { computed, shallowRef } from 'vue'

/** One step back: what it undoes, in words, and what was there before. */
export interface Step<Body> {
  label: string
  body: Body
  /** Orders the steps of several documents that are edited side by side; of one that was undone, when that was. */
  order: number
  /** Steps of one gesture, such as a slider that is being dragged, are one. */
  gesture?: string
  at: number
}

/** Steps of one gesture belong together while no more than this lies between them, in ms. */
export const gesturePause = 1500
/** How many steps back are remembered of one document. */
export const mostSteps = 200

let order = 0

/** What was done to a document, and what of it was taken back. */
export class History<Body> {
  private readonly done = shallowRef<Step<Body>[]>([])
  private readonly undone = shallowRef<Step<Body>[]>([])
  readonly undoable = computed(() => this.done.value.at(-1))
  readonly redoable = computed(() => this.undone.value.at(-1))

  constructor(
    private readonly clock: () => number = Date.now,
    private readonly most = mostSteps,
  ) {}

  /** Notes an edit: its name and what was there before it. */
  record(label: string, before: Body, gesture?: string) {
    const now = this.clock()
    const last = this.done.value.at(-1)
    this.undone.value = []
    if (gesture && last?.gesture === gesture && now - last.at <= gesturePause) {
      this.done.value = [...this.done.value.slice(0, -1), { ...last, at: now, order: ++order }]
      return
    }
    const step = { label, body: before, order: ++order, gesture, at: now }
    this.done.value = [...this.done.value, step].slice(-this.most)
  }

  /** Takes the last step back; what is there now can be had again. */
  undo(now: Body): Step<Body> | undefined {
    return this.move(this.done, this.undone, now)
  }

  redo(now: Body): Step<Body> | undefined {
    return this.move(this.undone, this.done, now)
  }

  private move(from: typeof this.done, to: typeof this.done, now: Body) {
    const step = from.value.at(-1)
    if (!step) return undefined
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, { ...step, body: now, gesture: undefined, order: ++order }]
    return step
  }

  clear() {
    this.done.value = []
    this.undone.value = []
  }
}
