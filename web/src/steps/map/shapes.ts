import type { NeckMap, Shape } from '../../api/client'

export type MapPosition = NeckMap['positions'][number]

/** The shape that a chord makes in a position of the map. */
export function shapeOf(position: MapPosition | undefined, chord: string | undefined): Shape | undefined {
  return position?.shapes.find((shape) => shape.chord === chord)
}
