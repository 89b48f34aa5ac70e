import { describe, expect, test, vi } from 'vitest'
import { client, type Chart, type ChorusView, type ChordSpan } from '../../api/client'
import type { SoloDocument } from '../../document/solos'
import { labelOf, planLabel } from './labels'
import { firstOfRow } from '../../controls/rows'
import { blendOf, heardByMoment, sentenceOf } from './looks'
import { sameSetting, usePresent } from './present'
import { onLine, rulerAt } from './ruler'

const view = (more: Record<string, unknown> = {}) =>
  ({
    tab: { barTicks: 1920, beatTicks: 480, events: [] },
    ...{ blocks: [], impliedHarmony: [], issues: [], style: [], first: [], ...more },
  }) as unknown as ChorusView

/** So many bars of 4/4. */
const bars = (count: number) =>
  Array.from({ length: count }, (_, n) => ({
    tick: n * 1920,
    ticks: 1920,
    beatTicks: 480,
    number: n + 1,
    meter: '4/4',
  }))

describe('the ruler', () => {
  test('bars have the length they are played with', () => {
    const played = bars(4)
    played[1] = { ...played[1]!, ticks: 960 }
    played[2] = { ...played[2]!, tick: 2880 }
    played[3] = { ...played[3]!, tick: 4800 }
    const r = rulerAt(view(), 1, played, 1112)
    expect(r.to).toBe(6720)
    expect(r.x(2880) - r.x(1920)).toBeCloseTo(r.x(960) - r.x(0))
    expect(r.beats.filter((b) => b.bar).map((b) => b.tick)).toEqual([0, 1920, 2880, 4800])
  })

  test('shows the four bars around a bar', () => {
    const r = rulerAt(view(), 6, bars(12), 1112)
    expect([r.from, r.to, r.bars.map((b) => b.number)]).toEqual([4 * 1920, 8 * 1920, [5, 6, 7, 8]])
  })

  test.each([
    [1112, [5, 6, 7, 8], true],
    [760, [5, 6], false],
    [340, [6], false],
  ])('as many bars as %i units have room for', (width, numbers, named) => {
    const r = rulerAt(view(), 6, bars(12), width)
    expect(r.bars.map((b) => b.number)).toEqual(numbers)
    expect(r.named).toBe(named)
    expect(r.x(r.to)).toBeLessThanOrEqual(width)
  })

  test('looked at closer it has fewer bars, and closed more', () => {
    const count = (closer: number) => rulerAt(view(), 6, bars(12), 1000, closer).bars.length
    expect([0.5, 1, 1.5, 3].map(count)).toEqual([4, 4, 2, 1])
  })

  test('shows fewer at the end of the tune', () => {
    expect(rulerAt(view(), 10, bars(10), 1112).bars.map((b) => b.number)).toEqual([9, 10])
  })

  test('shows a pickup before bar 1, from its beat on', () => {
    const r = rulerAt(view({ blocks: [{ start: -500, ticks: 500 }] }), 1, bars(12), 1112)
    expect(r.from).toBe(-960)
  })

  test('distances and ticks go back and forth', () => {
    const r = rulerAt(view(), 1, bars(12), 1112)
    expect(r.ticks(r.x(960) - r.x(0))).toBeCloseTo(960)
  })

  test('a block beyond it is not on it', () => {
    const r = rulerAt(view(), 1, bars(12), 1112)
    const block = (start: number, ticks: number) => ({ start, ticks, kind: 'lick', name: '' }) as never
    expect(onLine(r, block(9 * 1920, 480))).toBeUndefined()
    expect(onLine(r, block(0, 1920))!.width).toBeCloseTo(r.x(1920) - r.x(0))
    expect(onLine(r, block(3 * 1920, 4 * 1920))!.width).toBeCloseTo(r.x(r.to) - r.x(3 * 1920))
  })
})

describe('what is looked at', () => {
  test.each([
    [1, 1],
    [4, 1],
    [5, 5],
    [12, 9],
  ])('bar %i is in the row from %i on', (bar, row) => expect(firstOfRow(bar)).toBe(row))

  test('the blend of every bar', () => {
    expect(blendOf(undefined, 3, 0.5)).toEqual([0.5, 0.5, 0.5])
    expect(blendOf([0.2], 3, 0.5)).toEqual([0.2, 0.2, 0.2])
    expect(blendOf([0, 0.5, 1], 3, 0.5)).toEqual([0, 0.5, 1])
  })

  test('a chord over which nothing is played says so', () => {
    const moments = [
      { tick: 0, chord: 'C7' },
      { tick: 1920, chord: 'F7' },
    ] as ChordSpan[]
    const impliedHarmony = [{ tick: 0, ticks: 1920, recognition: 'heard', text: 'C7 is heard' }]
    const heard = heardByMoment(view({ impliedHarmony }), moments)
    expect(heard.get(0)).toEqual({ recognition: 'heard', text: 'C7 is heard' })
    expect(heard.get(1920)).toEqual({ recognition: 'nothing', text: 'nothing is played over F7' })
  })

  test('the first issue comes before what is good', () => {
    const motif = { name: 'motif', good: true, text: 'it comes back' }
    expect(sentenceOf(view({ style: [motif] }))).toBe('it comes back')
    expect(sentenceOf(view({ style: [motif], first: [{ text: 'mend this' }] }))).toBe('mend this')
    expect(sentenceOf(undefined)).toBe('')
  })
})

describe('what undo would take back', () => {
  test.each([
    ['move', 'move a block'],
    ['writeNotes', 'write notes'],
    ['reroll', 'roll again'],
  ] as const)('%s', (doing, want) => expect(labelOf({ kind: doing })).toBe(want))
  test('planning is named by what was changed', () => {
    expect([planLabel({ blend: [1] }), planLabel({ position: 'A' }), planLabel({ seed: 3 })]).toEqual([
      ...['draw the blend', 'plan here', 'plan again'],
    ])
  })
})

describe('a solo goes with its tune', () => {
  const chart = (tonic: string, more: Partial<Chart> = {}) =>
    ({
      title: 'A tune',
      key: { tonic, mode: 'dominant' },
      meter: '4/4',
      bars: [],
      tempo: 100,
      ...more,
    }) as unknown as Chart
  const kept: SoloDocument = { chartId: 1, solo: { name: 's', choruses: [] }, chart: chart('B') }

  test('what a solo does not depend on does not move it', () => {
    expect(sameSetting({ chart: chart('B') }, { chart: chart('B', { title: 'Other', tempo: 60 }) })).toBe(
      true,
    )
    expect(sameSetting({ chart: chart('B') }, { chart: chart('A') })).toBe(false)
    expect(sameSetting({ chart: chart('B') }, { chart: chart('B', { capo: 3 }) })).toBe(false)
  })

  test('over its own tune it is as it is kept, and nothing is asked', async () => {
    const post = vi.spyOn(client, 'POST')
    expect((await usePresent()(kept, { chart: chart('B') })).solo).toBe(kept.solo)
    expect(post).not.toHaveBeenCalled()
  })

  test('elsewhere it is moved by the server, once for each place', async () => {
    const moved = { solo: { name: 'moved', choruses: [] }, concessions: [] }
    const post = vi
      .spyOn(client, 'POST')
      .mockImplementation((async () => ({ data: moved, response: new Response() })) as never)
    const present = usePresent()
    expect((await present(kept, { chart: chart('A') })).solo.name).toBe('moved')
    await present(kept, { chart: chart('A') })
    expect(post).toHaveBeenCalledTimes(1)
    // And back at home it is as it was, to the note.
    expect((await present(kept, { chart: chart('B') })).solo).toBe(kept.solo)
  })

  test('what failed is asked again', async () => {
    const post = vi.spyOn(client, 'POST').mockRejectedValue(new TypeError('offline') as never)
    const present = usePresent()
    await expect(present(kept, { chart: chart('A') })).rejects.toThrow('does not answer')
    await expect(present(kept, { chart: chart('A') })).rejects.toThrow()
    expect(post).toHaveBeenCalledTimes(2)
  })
})
