import type { LocationQuery } from 'vue-router'
import { answer, client } from '../../api/client'

/** What has replaced what was kept: a sentence, and the backup that takes it back. */
export interface Done {
  says: string
  before?: string
}

/** What the address says was done before the page was loaded anew. */
export function replaced(query: LocationQuery): Done | undefined {
  const { did, before } = query
  if (typeof did !== 'string') return undefined
  return { says: did, before: typeof before === 'string' ? before : undefined }
}

/** Loads the page anew, so that nothing of what was kept before is shown any more. */
export function begunAnew({ says, before }: Done) {
  const query = new URLSearchParams({ did: says, ...(before ? { before } : {}) })
  location.assign(`/data?${query}`)
}

/** Puts a backup in the place of everything that is kept; the name of the backup of what was there. */
export async function restoreBackup(name: string): Promise<string> {
  const { before } = await answer(client.POST('/api/backups/{name}/restore', { params: { path: { name } } }))
  return before.name
}

/** A size in the unit that reads best. */
export function sized(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`
  if (bytes < 1e9) return `${(bytes / 1e6).toFixed(1)} MB`
  return `${(bytes / 1e9).toFixed(1)} GB`
}

/** So many of something, in words. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return count === 1 ? `one ${one}` : `${count} ${many}`
}

const names: Record<string, [string, string]> = {
  chart: ['tune', 'tunes'],
  lick: ['lick', 'licks'],
  exercise: ['exercise', 'exercises'],
  line: ['line', 'lines'],
  solo: ['solo', 'solos'],
  take: ['take', 'takes'],
  band: ['band setting', 'band settings'],
  session: ['practice session', 'practice sessions'],
}

/** What one of a kind is called, and several. */
export function named(kind: string): [string, string] {
  return names[kind] ?? [kind, kind]
}
