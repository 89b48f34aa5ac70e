/**
 * What stands in quotes is somebody's own name for a thing, and stays as it is. Quotes and
 * backslashes within it come with a backslash before them.
 */
const ownNames = /("(?:[^"\\]|\\.)*"|“[^”]*”)/

/**
 * Shows the b and # that files and answers hold as the signs players read: in notes (Bb),
 * degrees (b7), chords (F#m7b5), and the server's sentences about them, where names of
 * the player's own stand in quotes. It is never given a name by itself.
 */
export function signs(text: string): string {
  // Most texts have neither sign, and the others come again and again: with every key hundreds of them.
  if (!/[b#\\]/.test(text)) return text
  const known = spelledBefore.get(text)
  if (known !== undefined) return known
  const now = text
    .split(ownNames)
    .map((part, n) => (n % 2 ? part.replace(/\\(["\\])/g, '$1') : spelled(part)))
    .join('')
  if (spelledBefore.size >= mostSpelled) spelledBefore.clear()
  spelledBefore.set(text, now)
  return now
}
const spelledBefore = new Map<string, string>()
const mostSpelled = 4000

function spelled(text: string): string {
  return text
    .replace(
      /(?<![A-Za-z])([A-G])(bb|##|b|#)(?=maj|min|m(?![a-z])|dim|aug|sus|add|alt|[^a-z]|$)/g,
      (_, letter: string, sign: string) => letter + shown(sign),
    )
    .replace(/(?<![A-Za-z])(bb|##|b|#)(?=\d)/g, shown)
    .replace(/(?<=[\dm])(b|#)(?=\d)/g, shown)
    .replace(/(?<![A-Za-z\d])(b|#)(?=[ivIV])/g, shown)
}

function shown(sign: string): string {
  return sign.replaceAll('b', '♭').replaceAll('#', '♯')
}
