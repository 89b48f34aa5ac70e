import type { Layout, LayoutChoice } from '../../api/client'

/**
 * A layout as the address holds it: its kind, and behind a colon the degree it starts from or
 * its bounds; nothing for all tones.
 */
export function layoutText({ kind, from, low, high }: Layout): string | undefined {
  if (!kind || kind === 'all tones') return undefined
  if (from) return `${kind}:${from}`
  return high === undefined ? kind : `${kind}:${low ?? 0}-${high}`
}

/** The layout that the address holds. */
export function readLayout(text: string): Layout {
  const [kind = '', of = ''] = text.split(':')
  if (!kind) return {}
  const bounds = /^(\d+)-(\d+)$/.exec(of)
  if (bounds) return { kind, low: Number(bounds[1]), high: Number(bounds[2]) }
  return of ? { kind, from: of } : { kind }
}

/** Which of the layouts that can be chosen this one is; the first, of all tones, where it is none. */
export function chosenLayout(choices: LayoutChoice[], layout: Layout): LayoutChoice | undefined {
  return choices.find((one) => one.kind === layout.kind && one.from === layout.from) ?? choices[0]
}

/** The layout with one of its bounds moved; the other end comes along where the two would cross. */
export function moveBound(layout: Layout, end: 'low' | 'high', to: number): Layout {
  const { low = to, high = to } = layout
  return end === 'low'
    ? { ...layout, low: to, high: Math.max(to, high) }
    : { ...layout, low: Math.min(low, to), high: to }
}
