/** The layouts of a shape as the address holds them: a kind, and what it needs behind a colon. */
export interface Core {
  low: number
  high: number
  core: number
  coreEnd: number
}

export const layoutKind = (text: string) => text.split(':')[0] || 'all tones'

/** The layouts that can be chosen for a shape of these degrees. */
export function layoutOptions(degrees: string[]) {
  return [
    { value: 'all tones', text: 'all tones' },
    ...degrees.map((degree) => ({ value: `one octave:${degree}`, text: `one octave from ${degree}` })),
    { value: 'two a string', text: 'two a string, with the 9' },
    { value: 'three a string', text: 'three a string' },
    { value: 'some strings', text: 'only some strings' },
    { value: 'some frets', text: 'only some frets' },
  ]
}

/** The option that the address chooses. */
export const chosenLayout = (text: string) => (layoutKind(text) === 'one octave' ? text : layoutKind(text))

/** What the address holds once a layout is chosen; nothing for all tones. */
export function layoutText(option: string, position: Core | undefined): string | undefined {
  if (option === 'all tones') return undefined
  if (option === 'some strings') return 'some strings:1-3'
  if (option === 'some frets') return position && `some frets:${position.core}-${position.coreEnd}`
  return option
}

/** The strings or frets that a layout keeps to, and those it may be chosen from. */
export function boundsOf(text: string, position: Core | undefined, strings: number) {
  const kind = layoutKind(text)
  if (!position || !kind.startsWith('some ')) return undefined
  const unit = kind === 'some strings' ? 'string' : 'fret'
  const [least, most] = unit === 'string' ? [1, strings] : [position.low, position.high]
  const [low = 0, high = 0] = text.split(':')[1]?.split('-').map(Number) ?? []
  return { unit, low, high, all: Array.from({ length: most - least + 1 }, (_, n) => String(least + n)) }
}

/** The layout with one of its bounds moved; the other end comes along where the two would cross. */
export function moveBound(text: string, low: number, high: number, moved: 'low' | 'high') {
  const [from, to] = moved === 'low' ? [low, Math.max(low, high)] : [Math.min(low, high), high]
  return `${layoutKind(text)}:${from}-${to}`
}
