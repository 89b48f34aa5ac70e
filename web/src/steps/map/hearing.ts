import type { Chart, PlacedTone } from '../../api/client'
import type { PerformanceRequest } from '../../api/client'

/** A note of a shape played up lasts an eighth; the strings of a strum follow this many ticks apart. */
const eighth = 240
const strum = 24

/** Notes from the lowest up, one after the other or strummed, without the band. */
export function shapePerformance(
  notes: PlacedTone[],
  strummed: boolean,
  on: { chart: Chart; bar: number; barTicks: number },
): PerformanceRequest {
  const apart = strummed ? strum : eighth
  const events = notes.map((tone, index) => ({
    tick: index * apart,
    ticks: strummed || index === notes.length - 1 ? 4 * eighth : eighth,
    string: tone.string,
    fret: tone.fret,
  }))
  return {
    chart: on.chart,
    from: on.bar,
    bars: Math.ceil(((notes.length + 4) * eighth) / on.barTicks),
    countIn: 0,
    silent: ['click', 'drums', 'bass', 'chords'],
    line: { meter: on.chart.meter, events, start: (on.bar - 1) * on.barTicks },
  }
}
