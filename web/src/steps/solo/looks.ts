import { barsInRow, firstOfRow } from '../../controls/rows'
import type { BarLine, ChorusView, ChordSpan } from '../../api/client'
import { endOf } from '../../tab/barlines'
import { lineMarks, type Mark } from '../../neck/marks'

/**
 * The notes of a bar on the neck, or where it has none those of its row; the note that
 * sounds or is chosen, by its number in the chorus, is lit.
 */
export function chorusMarks(
  view: ChorusView | undefined,
  played: BarLine[],
  bar: number,
  lit: number | undefined,
): Mark[] {
  if (!view) return []
  const { events } = view.tab
  const all = events.map((event, index) => ({ event, index }))
  const between = (from: number, count: number) => {
    const bars = played.slice(from - 1, from - 1 + count)
    return all.filter(({ event }) => event.tick >= (bars[0]?.tick ?? 0) && event.tick < endOf(bars.at(-1)))
  }
  const inBar = between(bar, 1)
  const some = inBar.length ? inBar : between(firstOfRow(bar), barsInRow)
  return lineMarks(
    some.map((one) => one.event),
    some.findIndex((one) => one.index === lit),
  )
}

/** What is heard of each chord without the band, for the form strip, by the tick of its moment. */
export function heardByMoment(view: ChorusView, moments: ChordSpan[]) {
  return new Map(
    moments.map((m) => {
      const heard = view.impliedHarmony.find((one) => one.tick <= m.tick && m.tick < one.tick + one.ticks)
      const implied = heard
        ? { recognition: heard.recognition, text: heard.text }
        : { recognition: 'nothing' as const, text: `nothing is played over ${m.chord}` }
      return [m.tick, implied]
    }),
  )
}

/** The chorus in one sentence: what a teacher would say first, or what is good in it. */
export const sentenceOf = (view: ChorusView | undefined) =>
  view?.first[0]?.text ?? view?.style.find((f) => f.name === 'motif' && f.good)?.text ?? ''

/** The blend of every bar: one number stands for all of them. */
export function blendOf(own: number[] | undefined, bars: number, usual: number): number[] {
  const all = own ?? []
  const one = all.length === 1 ? (all[0] ?? usual) : usual
  return Array.from({ length: bars }, (_, n) => (all.length > 1 ? (all[n] ?? one) : one))
}
