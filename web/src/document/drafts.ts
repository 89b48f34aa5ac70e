import { createStore, del, entries, set, type UseStore } from 'idb-keyval'
import { newUid } from './uid'

/** Edits of a document that are not saved yet, kept by the browser. */
export interface Draft {
  kind: string
  /** 0 for what was never saved. */
  id: number
  /** The version they were made on. */
  version: number
  body: unknown
  /** What the document is called. */
  name: string
  /** When the last of them was made, in ms. */
  at: number
  /** The page they were made in. */
  page: string
  /** What the document is created as; left out by pages before there were such. */
  uid?: string
}

/** Where drafts are kept; a test keeps them in memory. */
export interface Drafts {
  keep(draft: Draft): Promise<void>
  drop(kind: string, id: number, page: string): Promise<void>
  /** The drafts of a document that pages which are gone have left behind. */
  left(kind: string, id: number): Promise<Draft[]>
}

/** What names this page among others of the same browser. */
export const thisPage = newUid()

const keyOf = (kind: string, id: number, page: string) => `${kind}:${id}:${page}`

/** A page that is open holds a lock of its name, so that others can tell that it is. */
export function holdPage(): Promise<unknown> {
  if (!navigator.locks) return Promise.resolve()
  return navigator.locks.request(`undaris-page-${thisPage}`, () => new Promise(() => {}))
}

async function openPages(): Promise<Set<string>> {
  const held = navigator.locks ? ((await navigator.locks.query()).held ?? []) : []
  return new Set(held.flatMap((lock) => lock.name?.replace('undaris-page-', '') ?? []))
}

/** Drafts in the browser's own database. Where it has none, nothing is kept and nothing fails. */
export function browserDrafts(): Drafts {
  let store: UseStore | undefined
  const use = () => (store ??= createStore('undaris', 'drafts'))
  return {
    async keep(draft) {
      try {
        await set(keyOf(draft.kind, draft.id, draft.page), draft, use())
      } catch (error) {
        console.info('edits are not kept beside their saving:', error)
      }
    },
    async drop(kind, id, page) {
      try {
        await del(keyOf(kind, id, page), use())
      } catch {
        // There is no database to take it out of.
      }
    },
    async left(kind, id) {
      try {
        const open = await openPages()
        const all = await entries<string, Draft>(use())
        return all
          .map(([, draft]) => draft)
          .filter((d) => d.kind === kind && d.id === id && d.page !== thisPage && !open.has(d.page))
          .sort((a, b) => b.at - a.at)
      } catch {
        return []
      }
    },
  }
}

/** Drafts in memory. */
export function memoryDrafts(all = new Map<string, Draft>(), page = thisPage): Drafts {
  return {
    keep: async (draft) => void all.set(keyOf(draft.kind, draft.id, draft.page), structuredClone(draft)),
    drop: async (kind, id, from) => void all.delete(keyOf(kind, id, from)),
    left: async (kind, id) =>
      [...all.values()].filter((d) => d.kind === kind && d.id === id && d.page !== page),
  }
}
