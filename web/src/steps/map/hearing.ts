import type { Chart, PerformanceRequest, PlacedTone } from '../../api/client'

/** Notes from the lowest up, one after the other or strummed, without the band. */
export const shapePerformance = (
  notes: PlacedTone[],
  strummed: boolean,
  on: { chart: Chart; bar: number },
): PerformanceRequest => ({
  chart: on.chart,
  from: on.bar,
  countIn: 0,
  silent: ['click', 'drums', 'bass', 'chords'],
  shape: { places: notes.map(({ string, fret }) => ({ string, fret })), strummed },
})
