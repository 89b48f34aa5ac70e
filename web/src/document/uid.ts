/**
 * A random identifier (UUID, version 4). `crypto.randomUUID` does the same, but only where the page comes over TLS or from
 * this machine.
 */
export function newUid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = (bytes[6]! & 0x0f) | 0x40
  bytes[8] = (bytes[8]! & 0x3f) | 0x80
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return [0, 8, 12, 16, 20].map((from, n, all) => hex.slice(from, all[n + 1])).join('-')
}
