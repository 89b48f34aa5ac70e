/**
 * Shows the b and # that files and answers hold as the signs players read, in
 * notes (Bb), degrees (b7), chords (F#m7b5) and whole sentences of them.
 */
export function signs(text: string): string {
  return text
    .replace(
      /(?<![A-Za-z])([A-G])(bb|##|b|#)(?!(?!maj|dim|aug|sus|add)[a-z]{2})/g,
      (_, letter: string, sign: string) => letter + shown(sign),
    )
    .replace(/(?<![A-Za-z])(bb|##|b|#)(?=\d)/g, shown)
    .replace(/(?<=[\dm])(b|#)(?=\d)/g, shown)
    .replace(/(?<![A-Za-z\d])(b|#)(?=[ivIV])/g, shown)
}

function shown(sign: string): string {
  return sign.replaceAll('b', '♭').replaceAll('#', '♯')
}
