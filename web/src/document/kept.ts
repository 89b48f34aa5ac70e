import { computed, shallowRef } from 'vue'
import { Problem } from '../api/client'
import { thisPage, type Draft, type Drafts } from './drafts'
import { History } from './history'
import { Queue } from './queue'
import { retryPauses, Saver, type SaveState } from './saver'
import { newUid } from './uid'
import { wasEdited } from './unsaved'

/** A document as the server keeps it. */
export interface Saved<Body> {
  id: number
  version: number
  body: Body
}

/** How one kind of document is kept, and what of it is computed to be shown. */
export interface Kind<Body, Shown> {
  name: string
  read(id: number): Promise<Saved<Body>>
  /** Keeps a new one; asked for again with the same uid it is the one that was kept the first time. */
  create(body: Body, uid: string): Promise<Saved<Body>>
  replace(id: number, body: Body, version: number, keepBefore: boolean): Promise<Saved<Body>>
  /** Computes what is shown of a body. Its body may be put in order by the server. */
  show(body: Body): Promise<{ body: Body; shown: Shown }>
  /** What the document is called. */
  called(body: Body): string
  /** Brings one back that was deleted. */
  restore?(id: number): Promise<unknown>
  /** Whether a body can be kept yet; a lick without notes cannot. */
  keepable?(body: Body): boolean
  drafts: Drafts
  onSaved?(saved: Saved<Body>, isNew: boolean): void
}

/** What an edit makes of a body. */
export interface Edited<Body, Shown> {
  body: Body
  shown: Shown
}

/**
 * One kept document while it is worked on: edits made one after the other, undone and
 * redone, saved behind, and kept by the browser until they are. It belongs to one id for
 * its whole life, so that nothing asked of it can fall on another.
 */
export class Kept<Body, Shown> {
  readonly body = shallowRef<Body>()
  readonly shown = shallowRef<Shown>()
  readonly id = shallowRef(0)
  readonly history: History<Body>
  readonly saver: Saver<Body>
  /** Edits that an earlier page could not save, to be taken up or dropped. */
  readonly draft = shallowRef<Draft>()
  /** How many edits are asked for and not made yet. */
  private readonly pending = shallowRef(0)
  /** How the saving stands; from the moment an edit is asked for it is not saved. */
  readonly state = computed<SaveState>(() => {
    if (this.pending.value === 0 || this.saver.state.value !== 'saved') return this.saver.state.value
    return this.waiting.value ? 'failed' : 'saving'
  })
  /** Why an edit is not made yet: the server is away. It is made as soon as that answers. */
  readonly waiting = shallowRef('')
  readonly version = shallowRef(0)
  /** What it is created as, however often that must be asked for. */
  private readonly uid = newUid()
  private readonly queue = new Queue()
  /** Whether the next save is over what someone else has written. */
  private overTheirs = false

  constructor(
    private readonly kind: Kind<Body, Shown>,
    id = 0,
  ) {
    this.id.value = id
    this.history = new History<Body>()
    this.saver = new Saver<Body>(
      (write) => this.write(write.body, write.version, write.keepBefore),
      () => void this.kind.drafts.drop(this.kind.name, this.id.value, thisPage),
    )
  }

  /** The name of its kind: tune, lick, band. */
  get kindName(): string {
    return this.kind.name
  }

  get called(): string {
    return this.body.value === undefined ? '' : this.kind.called(this.body.value)
  }

  /** Reads it anew, unless there are edits of this page that are not saved. */
  load(): Promise<void> {
    return this.queue.add(async () => {
      if (this.saver.unsaved.value && this.body.value !== undefined) return
      const saved = await this.kind.read(this.id.value)
      if (this.body.value !== undefined && saved.version === this.version.value) return
      await this.take(saved)
      await this.findDraft(saved)
    })
  }

  /** Finds what a page that is gone has left; what was saved after all is dropped. */
  private async findDraft(saved: Saved<Body>) {
    const left = await this.kind.drafts.left(this.kind.name, this.id.value)
    const saves = JSON.stringify(saved.body)
    for (const draft of left) {
      if (JSON.stringify(draft.body) === saves) await this.kind.drafts.drop(draft.kind, draft.id, draft.page)
    }
    this.draft.value = left.find((draft) => JSON.stringify(draft.body) !== saves)
  }

  /** Begins a document that is not kept yet. */
  begin(body: Body): Promise<void> {
    return this.queue.add(async () => this.set(await this.kind.show(body)))
  }

  /** Shows what the server keeps, in place of what is here. */
  private async take(saved: Saved<Body>) {
    this.set(await this.kind.show(saved.body))
    this.id.value = saved.id
    this.version.value = saved.version
    this.saver.resolve(saved.version)
    this.history.clear()
  }

  private set({ body, shown }: Edited<Body, Shown>) {
    this.body.value = body
    this.shown.value = shown
  }

  /**
   * Makes one edit and returns what stands in the way, if anything does. The edit is given
   * the body as the edits before it left it, and returns nothing where it changes nothing.
   */
  edit(
    label: string,
    change: (now: Body, shown: Shown | undefined) => Promise<Edited<Body, Shown> | undefined>,
    gesture?: string,
  ): Promise<Problem | undefined> {
    return this.attempt(async () => {
      const before = this.body.value
      if (before === undefined) return
      const next = await change(before, this.shown.value)
      if (!next) return
      if (JSON.stringify(next.body) === JSON.stringify(before)) {
        this.shown.value = next.shown
        return
      }
      this.history.record(label, before, gesture)
      this.set(next)
      this.save(next.body)
    })
  }

  /** Does work in its turn, and returns what stands in the way, if anything does. */
  private async attempt(work: () => Promise<void>): Promise<Problem | undefined> {
    wasEdited(this)
    this.pending.value++
    try {
      await this.queue.add(() => this.untilAnswered(work))
      return undefined
    } catch (error) {
      return asProblem(error)
    } finally {
      this.pending.value--
    }
  }

  /**
   * Does work, and again and again with growing pauses as long as the server is away: what was asked for first is done
   * first, however long that takes. What is refused is done once.
   */
  private async untilAnswered(work: () => Promise<void>): Promise<void> {
    for (let faults = 0; ; faults++) {
      try {
        await work()
        this.waiting.value = ''
        return
      } catch (error) {
        const problem = asProblem(error)
        if (problem.status !== 0 && problem.status !== 503) {
          this.waiting.value = ''
          throw error
        }
        this.waiting.value = problem.message
        const pause = retryPauses[Math.min(faults, retryPauses.length - 1)]!
        await new Promise<void>((done) => {
          this.hurry = done
          setTimeout(done, pause)
        })
      }
    }
  }
  private hurry = () => {}

  /** Tries again at once what could not be done or saved. */
  retry(): Promise<boolean> {
    this.hurry()
    return this.saver.retry()
  }

  /** Why it is not saved, in words. */
  get reason(): string {
    return this.saver.reason.value || this.waiting.value
  }

  /** Computes anew what is shown, of the body as it is. */
  refresh(): Promise<void> {
    return this.queue.add(async () => {
      if (this.body.value === undefined) return
      this.shown.value = (await this.kind.show(this.body.value)).shown
    })
  }

  undo = () => this.step('undo')
  redo = () => this.step('redo')

  private step(which: 'undo' | 'redo'): Promise<Problem | undefined> {
    return this.attempt(async () => {
      const now = this.body.value
      const step = which === 'undo' ? this.history.undoable.value : this.history.redoable.value
      if (now === undefined || !step) return
      const back = await this.kind.show(step.body)
      this.history[which](now)
      // What is brought back is what was there, to the note.
      this.set({ body: step.body, shown: back.shown })
      this.save(step.body)
    })
  }

  private save(body: Body, keepBefore = false) {
    if (this.kind.keepable && !this.kind.keepable(body)) return
    void this.kind.drafts.keep({
      kind: this.kind.name,
      id: this.id.value,
      version: this.version.value,
      body: JSON.parse(JSON.stringify(body)),
      name: this.kind.called(body),
      at: Date.now(),
      page: thisPage,
      uid: this.uid,
    })
    this.saver.save(body, keepBefore || this.overTheirs)
    this.overTheirs = false
  }

  private async write(body: Body, version: number, keepBefore: boolean): Promise<number> {
    const isNew = this.id.value === 0
    const saved = isNew
      ? await this.kind.create(body, this.uid)
      : await this.kind.replace(this.id.value, body, version, keepBefore)
    if (isNew) void this.kind.drafts.drop(this.kind.name, 0, thisPage)
    this.id.value = saved.id
    this.version.value = saved.version
    this.kind.onSaved?.(saved, isNew)
    return saved.version
  }

  /** Waits until all that was asked for is done and saved; false where it could not be. */
  async settled(): Promise<boolean> {
    if (this.waiting.value) return false
    await this.queue.idle()
    return this.saver.flush()
  }

  /** Takes up the edits that an earlier page left. */
  async takeDraft(): Promise<Problem | undefined> {
    const draft = this.draft.value
    if (!draft) return undefined
    // What was saved since they were made stays among the versions.
    if (draft.version !== this.version.value) this.overTheirs = true
    const problem = await this.edit('edits that were not saved', () => this.kind.show(draft.body as Body))
    if (!problem) await this.dropDraft()
    return problem
  }

  async dropDraft() {
    const draft = this.draft.value
    this.draft.value = undefined
    if (draft) await this.kind.drafts.drop(draft.kind, draft.id, draft.page)
  }

  /** After a conflict: shows what was saved elsewhere; the edits made here can be had again by undo. */
  takeTheirs(): Promise<void> {
    return this.queue.add(async () => {
      const mine = this.body.value
      const saved = await this.kind.read(this.id.value)
      await this.take(saved)
      await this.kind.drafts.drop(this.kind.name, this.id.value, thisPage)
      if (mine !== undefined) {
        this.history.record('what was saved elsewhere', mine)
        this.overTheirs = true
      }
    })
  }

  /** After a conflict: saves what is here over what was saved elsewhere, which stays among the versions. */
  keepMine(): Promise<void> {
    return this.queue.add(async () => {
      const mine = this.body.value
      if (mine === undefined) return
      if (this.state.value === 'gone') await this.kind.restore?.(this.id.value)
      const theirs = await this.kind.read(this.id.value)
      this.version.value = theirs.version
      this.saver.resolve(theirs.version)
      this.save(mine, true)
    })
  }

  /** Keeps what is here as a document of its own, and returns its id. */
  keepAsNew(): Promise<number> {
    return this.queue.add(async () => {
      const mine = this.body.value
      if (mine === undefined) return 0
      const saved = await this.kind.create(mine, newUid())
      await this.kind.drafts.drop(this.kind.name, this.id.value, thisPage)
      this.saver.resolve(this.version.value)
      this.kind.onSaved?.(saved, true)
      return saved.id
    })
  }

  /** Replaces it by what a change on the server has made of it, such as an earlier version. */
  replaceBy(label: string, change: (version: number) => Promise<Saved<Body>>): Promise<void> {
    return this.queue.add(async () => {
      const before = this.body.value
      if (!(await this.saver.flush())) throw new Problem(0, this.saver.reason.value || 'it is not saved yet')
      const saved = await change(this.version.value)
      const shown = await this.kind.show(saved.body)
      if (before !== undefined) this.history.record(label, before)
      this.set(shown)
      this.version.value = saved.version
      this.saver.resolve(saved.version)
    })
  }
}

function asProblem(error: unknown): Problem {
  return error instanceof Problem
    ? error
    : new Problem(0, error instanceof Error ? error.message : String(error))
}
