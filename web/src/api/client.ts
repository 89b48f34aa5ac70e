import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Chart = Schemas['Chart']
export type ReadChart = Schemas['ReadChart']
export type KeptChart = Schemas['KeptChart']
export type ChartEntry = Schemas['ChartEntry']
export type Moment = Schemas['Moment']
export type Change = Schemas['Change']
export type NeckMap = Schemas['Map']
export type Position = Schemas['Position']
export type Shape = Schemas['Shape']
export type PlacedTone = Schemas['PlacedTone']
export type Instrument = Schemas['Instrument']
export type ChangeView = Schemas['ChangeView']
export type Move = Schemas['Move']
export type Line = Schemas['Line']
export type LineEvent = Schemas['LineEvent']
export type LineChoice = Schemas['LineChoice']
export type LineEntry = Schemas['LineEntry']
export type KeptLine = Schemas['KeptLine']
export type KeptLick = Schemas['KeptLick']
export type Place = Schemas['Place']
export type Target = Schemas['Target']
export type Performance = Schemas['Performance']
export type Choices = Schemas['Choices']

export const client = createClient<paths>({ baseUrl: location.origin })

/** A problem the server told of, in its own words. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    /** The places a refused target could be had at instead. */
    readonly nearest: Target[] = [],
  ) {
    super(detail)
  }
}

interface Answer<T> {
  data?: T
  error?: Schemas['ErrorModel']
  response: Response
}

/** The body of an answer, or its problem thrown. */
export async function answer<T>(asked: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>
  try {
    got = await asked
  } catch {
    throw new Problem(0, 'Undaris does not answer. Is it still running?')
  }
  if (got.error || !got.response.ok) {
    const value = got.error?.errors?.[0]?.value as { nearest?: Target[] } | undefined
    throw new Problem(
      got.response.status,
      got.error?.detail ?? `Undaris answered with status ${got.response.status}.`,
      value?.nearest,
    )
  }
  return got.data as T
}
