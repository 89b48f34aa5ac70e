import { computed, ref } from 'vue'
import { Problem } from '../api/client'

/**
 * How the saving of a document stands: all saved; something on its way; saved elsewhere in
 * between; deleted elsewhere; or not saved, with why.
 */
export type SaveState = 'saved' | 'saving' | 'conflict' | 'gone' | 'failed'

/** A save waits this long for the next edit, in ms. */
export const saveDelay = 500
/** The pauses after which a save that failed is tried again, in ms; the last one is repeated. */
export const retryPauses = [1000, 2000, 4000, 8000, 15000, 30000]

/** What is saved, and the version it replaces. */
export interface Write<Body> {
  body: Body
  version: number
  keepBefore: boolean
}

/**
 * Saves a body behind the edits: debounced, one save at a time, always the newest body. A
 * save that fails for want of the server is tried again with growing pauses; one that is
 * refused waits for the next edit or for `retry`; one that met another save stops until
 * the player has chosen.
 */
export class Saver<Body> {
  readonly state = ref<SaveState>('saved')
  /** Why it is not saved, in words. */
  readonly reason = ref('')
  readonly unsaved = computed(() => this.state.value !== 'saved')

  private body: Body | undefined
  private dirty = false
  private keepBefore = false
  private failures = 0
  private timer: ReturnType<typeof setTimeout> | undefined
  private running: Promise<void> | undefined

  constructor(
    private readonly write: (write: Write<Body>) => Promise<number>,
    /** Told what has been saved, once it is. */
    private readonly onSaved: (body: Body) => void = () => {},
    public version = 0,
  ) {}

  /** Saves a body soon. */
  save(body: Body, keepBefore = false) {
    this.body = body
    this.dirty = true
    this.keepBefore ||= keepBefore
    if (this.state.value === 'conflict' || this.state.value === 'gone') return
    this.state.value = 'saving'
    this.failures = 0
    this.schedule(saveDelay)
  }

  /** Saves at once what is to be saved; says whether all of it is. */
  async flush(): Promise<boolean> {
    this.stopWaiting()
    while (this.running || (this.dirty && this.state.value === 'saving')) {
      await (this.running ?? this.run())
      this.stopWaiting()
    }
    return this.state.value === 'saved'
  }

  /** Tries again at once what could not be saved. */
  retry(): Promise<boolean> {
    if (this.state.value === 'failed') {
      this.state.value = 'saving'
      this.failures = 0
    }
    return this.flush()
  }

  /** Goes on from another version, after a conflict was resolved. */
  resolve(version: number) {
    this.version = version
    this.dirty = false
    this.keepBefore = false
    this.stopWaiting()
    this.state.value = 'saved'
    this.reason.value = ''
  }

  private schedule(pause: number) {
    this.stopWaiting()
    this.timer = setTimeout(() => void this.run(), pause)
  }

  private stopWaiting() {
    clearTimeout(this.timer)
    this.timer = undefined
  }

  private run(): Promise<void> {
    this.running ??= this.runNow().finally(() => (this.running = undefined))
    return this.running
  }

  private async runNow() {
    if (!this.dirty || this.body === undefined) return
    const body = this.body
    const keepBefore = this.keepBefore
    this.dirty = false
    this.keepBefore = false
    try {
      this.version = await this.write({ body, version: this.version, keepBefore })
    } catch (error) {
      this.dirty = true
      this.keepBefore ||= keepBefore
      this.fail(error)
      return
    }
    this.failures = 0
    this.reason.value = ''
    if (this.dirty) this.schedule(saveDelay)
    else {
      this.state.value = 'saved'
      this.onSaved(body)
    }
  }

  private fail(error: unknown) {
    this.reason.value = error instanceof Error ? error.message : String(error)
    const status = error instanceof Problem ? error.status : 0
    if (status === 412 || status === 404) {
      this.state.value = status === 412 ? 'conflict' : 'gone'
      return
    }
    this.state.value = 'failed'
    // What is refused would be refused again; the rest may be over soon.
    if (status >= 400 && status < 500) return
    const pause = retryPauses[Math.min(this.failures, retryPauses.length - 1)] ?? 0
    this.failures++
    this.stopWaiting()
    this.timer = setTimeout(() => {
      void this.run()
    }, pause)
  }
}
