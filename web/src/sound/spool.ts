import { createStore, del, entries, set, type UseStore } from 'idb-keyval'

/** A piece of a recording that has not arrived: at which byte it begins, and where the tune begins once that is known. */
export interface SpooledPiece {
  id: string
  at: number
  bytes: Uint8Array
  start?: number
}

/** Where pieces lie that have not arrived: a page that is closed, or falls over, loses none. */
export interface Spool {
  put(piece: SpooledPiece): Promise<void>
  remove(id: string, at: number): Promise<void>
  /** What is left of every recording, in the order of its bytes. */
  left(): Promise<Map<string, SpooledPiece[]>>
}

const keyOf = (id: string, at: number) => `${id} ${String(at).padStart(12, '0')}`

/** The spool of this browser. Where the browser keeps nothing, pieces wait in the page alone. */
export function browserSpool(): Spool {
  let store: UseStore | undefined
  const open = () => (store ??= createStore('undaris recordings', 'pieces'))
  return {
    put: async (piece) => set(keyOf(piece.id, piece.at), piece, open()),
    remove: async (id, at) => del(keyOf(id, at), open()),
    async left() {
      const all = new Map<string, SpooledPiece[]>()
      const pieces = await entries<string, SpooledPiece>(open())
      for (const [, piece] of pieces.toSorted(([a], [b]) => (a < b ? -1 : 1)))
        all.set(piece.id, [...(all.get(piece.id) ?? []), piece])
      return all
    },
  }
}
