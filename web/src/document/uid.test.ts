import { expect, it, vi } from 'vitest'
import { newUid } from './uid'

it('makes identifiers without what only a page over TLS has', () => {
  vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) })
  const made = new Set(Array.from({ length: 1000 }, newUid))
  vi.unstubAllGlobals()
  expect(made.size).toBe(1000)
  for (const uid of made)
    expect(uid).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
})
