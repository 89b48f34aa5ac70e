import type { ChartEntry } from '../../api/client'
import { signs } from '../../controls/spelling'

export const orders = [
  { value: 'practised', text: 'last practised' },
  { value: 'title', text: 'title' },
  { value: 'saved', text: 'last changed' },
  { value: 'key', text: 'key' },
  { value: 'tempo', text: 'tempo' },
]

const compare: Record<string, (a: ChartEntry, b: ChartEntry) => number> = {
  practised: (a, b) => (b.practised ?? '').localeCompare(a.practised ?? ''),
  title: (a, b) => a.title.localeCompare(b.title),
  saved: (a, b) => b.saved.localeCompare(a.saved),
  key: (a, b) => a.key.tonic.localeCompare(b.key.tonic) || a.title.localeCompare(b.title),
  tempo: (a, b) => a.tempo - b.tempo,
}

export const keyOf = (entry: ChartEntry) =>
  `${signs(entry.key.tonic)} ${entry.key.mode === 'dominant' ? '' : entry.key.mode}`.trim()
export const factsOf = (entry: ChartEntry) =>
  [keyOf(entry), entry.scheme || `${entry.bars} bars`, entry.feel, entry.tempo].join(' · ')

/** The tunes that have every word searched for and the tag, in the order that is chosen. */
export function listed(all: ChartEntry[], search: string, tag: string, order: string): ChartEntry[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  return all
    .filter((entry) => !entry.damaged)
    .filter((entry) => !tag || entry.tags.includes(tag))
    .filter((entry) => {
      const facts = [entry.title, ...entry.tags, keyOf(entry), entry.scheme, entry.feel]
      const text = facts.join(' ').toLowerCase()
      return words.every((word) => text.includes(word))
    })
    .toSorted(compare[order])
}
