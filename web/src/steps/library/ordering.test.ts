import { describe, expect, test } from 'vitest'
import type { ChartEntry } from '../../api/client'
import { factsOf, keyOf, listed, orders } from './ordering'

const entry = (title: string, tonic: string, mode: string, tempo: number, more: Partial<ChartEntry> = {}) =>
  ({
    ...{ title, key: { tonic, mode }, tempo, scheme: 'Quick-change blues', feel: 'shuffle', bars: 12 },
    ...{ tags: [], saved: '2026-01-01', id: tempo, version: 1 },
    ...more,
  }) as unknown as ChartEntry
const all = [
  entry('Harbour Lights', 'G', 'dominant', 112, { tags: ['gig'], saved: '2026-03-01' } as never),
  entry('Cold Kettle', 'Bb', 'minor', 84, { practised: '2026-05-01', scheme: '' } as never),
  entry('Night Ferry', 'A', 'dominant', 120, { feel: '12/8' } as never),
  entry('Spoiled', 'A', 'dominant', 1, { damaged: 'no chart' } as never),
]
const titles = (search = '', tag = '', order = 'title') => listed(all, search, tag, order).map((e) => e.title)

describe('the tunes of the library', () => {
  test('those that cannot be read are not among the others', () => {
    expect(titles()).toEqual(['Cold Kettle', 'Harbour Lights', 'Night Ferry'])
  })
  test.each([
    ['practised', 'Cold Kettle'],
    ['title', 'Cold Kettle'],
    ['saved', 'Harbour Lights'],
    ['key', 'Night Ferry'],
    ['tempo', 'Cold Kettle'],
  ])('by %s', (order, first) => {
    expect(orders.map((o) => o.value)).toContain(order)
    expect(titles('', '', order)[0]).toBe(first)
  })
  test.each([
    ['ferry', ['Night Ferry']],
    ['B♭ minor', ['Cold Kettle']],
    ['quick  SHUFFLE', ['Harbour Lights']],
    ['nothing like it', []],
  ])('searched for %s', (search, found) => {
    expect(titles(search)).toEqual(found)
  })
  test('with a tag', () => {
    expect(titles('', 'gig')).toEqual(['Harbour Lights'])
  })
  test('says its key, form, feel and tempo', () => {
    expect(keyOf(all[1]!)).toBe('B♭ minor')
    expect(factsOf(all[1]!)).toBe('B♭ minor · 12 bars · shuffle · 84')
    expect(factsOf(all[0]!)).toBe('G · Quick-change blues · shuffle · 112')
  })
})
