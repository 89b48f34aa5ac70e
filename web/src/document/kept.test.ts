import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { Problem } from '../api/client'
import { memoryDrafts, thisPage, type Draft } from './drafts'
import { Collection, mostOpen } from './collection'
import { Kept, type Kind, type Saved } from './kept'
import { anythingUnsaved } from './unsaved'
import { saveDelay } from './saver'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

/** A server that keeps texts, and computes how long they are. */
function texts(first = 'one') {
  const drafts = new Map<string, Draft>()
  const rows = new Map<number, Saved<string>>([[1, { id: 1, version: 1, body: first }]])
  const log: string[] = []
  const offline = { now: false }
  const reach = () => {
    if (offline.now) throw new Problem(0, 'Undaris does not answer.')
  }
  const kind: Kind<string, number> = {
    name: 'text',
    read: async (id) => {
      reach()
      const row = rows.get(id)
      if (!row) throw new Problem(404, 'there is none')
      return { ...row }
    },
    create: async (body, uid) => {
      reach()
      const before = created.get(uid)
      const row = before ?? { id: rows.size + 1, version: 1, body }
      rows.set(row.id, row)
      created.set(uid, row)
      if (!before) log.push(`create ${body}`)
      if (unanswered.creates-- > 0) throw new Problem(0, 'Undaris does not answer')
      return { ...row }
    },
    replace: async (id, body, version, keepBefore) => {
      reach()
      const row = rows.get(id)
      if (!row) throw new Problem(404, 'there is none')
      if (row.version !== version) throw new Problem(412, 'saved elsewhere')
      rows.set(id, { id, version: version + 1, body })
      log.push(`${keepBefore ? 'keep and ' : ''}replace ${body}`)
      return { ...rows.get(id)! }
    },
    show: async (body) => {
      if (body.includes('!')) throw new Problem(422, 'no shouting')
      return { body, shown: body.length }
    },
    called: (body) => body,
    drafts: memoryDrafts(drafts),
  }
  /** How many documents are created whose answers are lost on their way. */
  const unanswered = { creates: 0 }
  const created = new Map<string, Saved<string>>()
  const elsewhere = (id: number, body: string) =>
    rows.set(id, { id, version: rows.get(id)!.version + 1, body })
  return { kind, rows, drafts, log, offline, elsewhere, unanswered }
}
const append = (more: string) => async (now: string) => ({
  body: now + more,
  shown: now.length + more.length,
})
const settle = () => vi.advanceTimersByTimeAsync(saveDelay)

async function opened(first?: string) {
  const server = texts(first)
  const one = new Kept(server.kind, 1)
  await one.load()
  return { ...server, one }
}

test('a new document whose first answers are lost is kept once', async () => {
  const { kind, log, rows, unanswered } = texts('')
  rows.clear()
  unanswered.creates = 2
  const [one, other] = [new Kept(kind), new Kept(kind)]
  for (const each of [one, other]) {
    await each.begin('new')
    await each.edit('add', append(' lick'))
  }
  await vi.advanceTimersByTimeAsync(60_000)
  expect([one.state.value, other.state.value]).toEqual(['saved', 'saved'])
  expect(log).toEqual(['create new lick', 'create new lick'])
  expect(new Set([one.id.value, other.id.value]).size).toBe(2)
})

describe('editing', () => {
  test('a document is read and shown', async () => {
    const { one } = await opened()
    expect([one.body.value, one.shown.value, one.version.value]).toEqual(['one', 3, 1])
  })

  test('edits are shown at once and saved behind', async () => {
    const { one, rows } = await opened()
    await one.edit('add', append('!'.replace('!', '?')))
    expect(one.body.value).toBe('one?')
    expect(rows.get(1)!.body).toBe('one')
    await settle()
    expect(rows.get(1)!.body).toBe('one?')
    expect(one.state.value).toBe('saved')
  })

  test('each edit sees what the one before left', async () => {
    const { one } = await opened()
    await Promise.all([one.edit('a', append('a')), one.edit('b', append('b')), one.edit('c', append('c'))])
    expect(one.body.value).toBe('oneabc')
  })

  test('an edit that answers late does not overtake one behind it', async () => {
    const { one } = await opened()
    let finish = () => {}
    const slow = one.edit('slow', async (now) => {
      await new Promise<void>((done) => (finish = done))
      return { body: now + 'slow', shown: 0 }
    })
    const quick = one.edit('quick', append('quick'))
    await vi.advanceTimersByTimeAsync(1)
    finish()
    await Promise.all([slow, quick])
    expect(one.body.value).toBe('oneslowquick')
  })

  test('what is refused is returned and changes nothing', async () => {
    const { one, log } = await opened()
    const refused = await one.edit('shout', () => Promise.reject(new Problem(422, 'no shouting')))
    expect(refused?.message).toBe('no shouting')
    expect(one.body.value).toBe('one')
    expect(one.history.undoable.value).toBeUndefined()
    await settle()
    expect(log).toEqual([])
  })

  test('an edit that changes nothing is no step and no save', async () => {
    const { one, log } = await opened()
    await one.edit('nothing', async (now) => ({ body: now, shown: 99 }))
    expect(one.history.undoable.value).toBeUndefined()
    expect(one.shown.value).toBe(99)
    await settle()
    expect(log).toEqual([])
  })

  test('many edits in a row are one save', async () => {
    const { one, log } = await opened('')
    for (const letter of 'A new title') await one.edit('rename', append(letter))
    await settle()
    expect(log).toEqual(['replace A new title'])
  })

  test('a document that cannot be kept yet is not saved', async () => {
    const server = texts()
    const fresh = new Kept({ ...server.kind, keepable: (body) => body.length > 0 })
    await fresh.begin('')
    await settle()
    expect(server.log).toEqual([])
    await fresh.edit('write', append('note'))
    await settle()
    expect(server.log).toEqual(['create note'])
    expect(fresh.id.value).toBe(2)
  })

  test('a new document is created once and replaced from then on', async () => {
    const server = texts()
    const fresh = new Kept(server.kind)
    await fresh.begin('')
    await fresh.edit('write', append('a'))
    await settle()
    await fresh.edit('write', append('b'))
    await settle()
    expect(server.log).toEqual(['create a', 'replace ab'])
  })
})

describe('undo', () => {
  test('brings back what was there and saves it', async () => {
    const { one, rows } = await opened()
    await one.edit('add', append('two'))
    await settle()
    await one.undo()
    expect([one.body.value, one.shown.value]).toEqual(['one', 3])
    await settle()
    expect(rows.get(1)!.body).toBe('one')
    await one.redo()
    expect(one.body.value).toBe('onetwo')
  })

  test('is done in order with edits that are on their way', async () => {
    const { one } = await opened()
    const first = one.edit('a', append('a'))
    const back = one.undo()
    const second = one.edit('b', append('b'))
    await Promise.all([first, back, second])
    expect(one.body.value).toBe('oneb')
  })

  test('that the server refuses leaves everything as it is', async () => {
    const { one } = await opened('one')
    await one.edit('add', append('two'))
    one.history.record('odd', 'shout!')
    expect((await one.undo())?.message).toBe('no shouting')
    expect(one.body.value).toBe('onetwo')
    expect(one.history.undoable.value?.label).toBe('odd')
  })

  test('outlives the document being left and opened again', async () => {
    const server = texts()
    server.rows.set(2, { id: 2, version: 1, body: 'other' })
    const all = new Collection(server.kind)
    const one = all.of(1)
    await one.load()
    await one.edit('add', append('two'))
    await settle()
    await all.of(2).load()
    const again = all.of(1)
    await again.load()
    await again.undo()
    expect(again.body.value).toBe('one')
  })

  test('is forgotten where the document was saved elsewhere meanwhile', async () => {
    const { one, elsewhere } = await opened()
    await one.edit('add', append('two'))
    await settle()
    elsewhere(1, 'theirs')
    await one.load()
    expect(one.body.value).toBe('theirs')
    expect(one.history.undoable.value).toBeUndefined()
  })
})

describe('two windows', () => {
  async function conflict() {
    const all = await opened()
    all.elsewhere(1, 'theirs')
    await all.one.edit('add', append(' mine'))
    await settle()
    expect(all.one.state.value).toBe('conflict')
    return all
  }

  test('nothing is overwritten', async () => {
    const { rows } = await conflict()
    expect(rows.get(1)!.body).toBe('theirs')
  })

  test('theirs can be shown, and mine had again by undo', async () => {
    const { one, rows, log } = await conflict()
    await one.takeTheirs()
    expect(one.body.value).toBe('theirs')
    expect(one.state.value).toBe('saved')
    await one.undo()
    expect(one.body.value).toBe('one mine')
    await settle()
    expect(rows.get(1)!.body).toBe('one mine')
    expect(log).toEqual(['keep and replace one mine'])
  })

  test('mine can be kept as the newest; theirs stays among the versions', async () => {
    const { one, rows, log } = await conflict()
    await one.keepMine()
    await settle()
    expect(rows.get(1)!.body).toBe('one mine')
    expect(log).toEqual(['keep and replace one mine'])
  })

  test('mine can be kept as a document of its own', async () => {
    const { one, rows } = await conflict()
    const id = await one.keepAsNew()
    expect(rows.get(id)!.body).toBe('one mine')
    expect(rows.get(1)!.body).toBe('theirs')
  })

  test('one that was deleted elsewhere can be brought back', async () => {
    const all = await opened()
    const row = all.rows.get(1)!
    all.rows.delete(1)
    await all.one.edit('add', append(' mine'))
    await settle()
    expect(all.one.state.value).toBe('gone')
    const restored = vi.fn(async () => void all.rows.set(1, row))
    Object.assign(all.kind, { restore: restored })
    await all.one.keepMine()
    await settle()
    expect(restored).toHaveBeenCalledWith(1)
    expect(all.rows.get(1)!.body).toBe('one mine')
  })
})

describe('a server that is away', () => {
  test('loses nothing that is typed meanwhile', async () => {
    const { one, offline, rows } = await opened()
    offline.now = true
    await one.edit('add', append(' typed'))
    await settle()
    expect(one.state.value).toBe('failed')
    expect(anythingUnsaved()).toBe(true)
    await one.edit('add', append(' on'))
    offline.now = false
    await vi.advanceTimersByTimeAsync(60_000)
    expect(rows.get(1)!.body).toBe('one typed on')
    expect(one.state.value).toBe('saved')
  })

  test('the browser keeps the edits until they are saved', async () => {
    const { one, offline, drafts } = await opened()
    offline.now = true
    await one.edit('add', append(' typed'))
    expect([...drafts.values()].map((d) => [d.id, d.version, d.body])).toEqual([[1, 1, 'one typed']])
    offline.now = false
    await vi.advanceTimersByTimeAsync(60_000)
    expect(drafts.size).toBe(0)
  })

  test('edits of a page that is gone are offered, and taken up', async () => {
    const server = texts()
    server.drafts.set('x', {
      ...{ kind: 'text', id: 1, version: 1, body: 'one typed', name: 'one', at: 5, page: 'another page' },
    })
    const one = new Kept(server.kind, 1)
    await one.load()
    expect(one.draft.value?.body).toBe('one typed')
    expect(one.body.value).toBe('one')
    await one.takeDraft()
    expect(one.body.value).toBe('one typed')
    expect(one.draft.value).toBeUndefined()
    await one.undo()
    expect(one.body.value).toBe('one')
  })

  test('but not where they were saved after all', async () => {
    const server = texts('one typed')
    server.drafts.set('text:1:another page', {
      ...{ kind: 'text', id: 1, version: 1, body: 'one typed', name: 'one', at: 5, page: 'another page' },
    })
    const one = new Kept(server.kind, 1)
    await one.load()
    expect([one.draft.value, server.drafts.size]).toEqual([undefined, 0])
  })

  test('or dropped', async () => {
    const server = texts()
    server.drafts.set('text:1:another page', {
      ...{ kind: 'text', id: 1, version: 1, body: 'x', name: 'one', at: 5, page: 'another page' },
    })
    const one = new Kept(server.kind, 1)
    await one.load()
    await one.dropDraft()
    expect(server.drafts.size).toBe(0)
    expect(one.body.value).toBe('one')
  })

  test('edits of this page itself are not offered to it', async () => {
    const server = texts()
    server.drafts.set('x', {
      ...{ kind: 'text', id: 1, version: 1, body: 'x', name: 'one', at: 5, page: thisPage },
    })
    const one = new Kept(server.kind, 1)
    await one.load()
    expect(one.draft.value).toBeUndefined()
  })

  test('reading again does not take away what is not saved', async () => {
    const { one, offline, elsewhere } = await opened()
    offline.now = true
    await one.edit('add', append(' typed'))
    await settle()
    offline.now = false
    elsewhere(1, 'theirs')
    await one.load()
    expect(one.body.value).toBe('one typed')
  })
})

describe('versions', () => {
  test('one that is restored can be undone', async () => {
    const { one, rows } = await opened()
    await one.edit('add', append('two'))
    await one.replaceBy('restore version 1', async (version) => {
      rows.set(1, { id: 1, version: version + 1, body: 'restored' })
      return rows.get(1)!
    })
    expect(one.body.value).toBe('restored')
    expect(one.history.undoable.value?.label).toBe('restore version 1')
    await one.undo()
    expect(one.body.value).toBe('onetwo')
  })

  test('none is restored over edits that cannot be saved', async () => {
    const { one, offline } = await opened()
    offline.now = true
    await one.edit('add', append('two'))
    await expect(one.replaceBy('restore', async () => ({ id: 1, version: 2, body: 'x' }))).rejects.toThrow()
    expect(one.body.value).toBe('onetwo')
  })
})

describe('a collection', () => {
  test('gives the same document for the same id', () => {
    const all = new Collection(texts().kind)
    expect(all.of(3)).toBe(all.of(3))
    expect(all.peek(4)).toBeUndefined()
  })

  test('lets go of the oldest that is saved', async () => {
    const all = new Collection(texts().kind)
    const first = all.of(1)
    for (let id = 2; id <= mostOpen + 1; id++) all.of(id)
    expect(all.peek(1)).toBeUndefined()
    expect(all.of(1)).not.toBe(first)
  })

  test('never lets go of one that is not saved', async () => {
    const server = texts()
    const all = new Collection(server.kind)
    const first = all.of(1)
    await first.load()
    server.offline.now = true
    await first.edit('add', append('two'))
    for (let id = 2; id <= mostOpen + 5; id++) all.of(id)
    expect(all.peek(1)).toBe(first)
  })

  test('finds a new document by its id once it has one', async () => {
    const server = texts()
    const all = new Collection(server.kind)
    const fresh = all.fresh()
    await fresh.begin('x')
    await fresh.edit('write', append('y'))
    await settle()
    all.adopt(fresh)
    expect(all.of(fresh.id.value)).toBe(fresh)
  })

  test('forgets what is to be read anew', () => {
    const all = new Collection(texts().kind)
    const one = all.of(1)
    all.forget(1)
    expect(all.of(1)).not.toBe(one)
  })
})
