import { answer, client, type Chart, type Hands, type Solo, type SoloConcession } from '../../api/client'
import type { SoloDocument } from '../../document/solos'

/** What a solo is looked at over and for. */
export interface Setting {
  chart: Chart
  hands?: Hands
}

/** A solo where its tune is now, and what could not stay as it was. */
export interface PresentSolo {
  solo: Solo
  concessions: SoloConcession[]
}

/** What of a setting a solo depends on: where the notes lie, and what they lie over. */
const placesOf = ({ chart, hands }: Setting) =>
  JSON.stringify([
    ...[chart.key, chart.meter, chart.capo ?? 0, chart.imagining ?? false, chart.bars],
    hands?.instrument ?? null,
  ])

export const sameSetting = (a: Setting, b: Setting) => placesOf(a) === placesOf(b)

/** How many moved solos are remembered, so that going back and forth asks nothing anew. */
const remembered = 8

/**
 * Moves solos along with their tunes. What a solo looks like over a setting depends on
 * nothing but what is kept of it, so it is asked for once.
 */
export function usePresent() {
  const known = new Map<string, Promise<PresentSolo>>()

  return function present(document: SoloDocument, setting: Setting): Promise<PresentSolo> {
    if (sameSetting(document, setting)) return Promise.resolve({ solo: document.solo, concessions: [] })
    const key = JSON.stringify([document.solo, placesOf(document), placesOf(setting)])
    let moved = known.get(key)
    if (!moved) {
      const { solo, chart, hands } = document
      moved = answer(
        client.POST('/api/compute/solo/transposed', { body: { solo, from: { chart, hands }, to: setting } }),
      )
      // What failed is asked again.
      moved.catch(() => known.delete(key))
      known.set(key, moved)
      const oldest = known.keys().next().value
      if (known.size > remembered && oldest !== undefined) known.delete(oldest)
    }
    return moved
  }
}
