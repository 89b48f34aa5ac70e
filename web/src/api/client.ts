import createClient from 'openapi-fetch'
import { fetchInTime } from './deadline'
import { networkAnswers } from './fault'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Chart = Schemas['Chart']
export type ReadChart = Schemas['ReadChart']
export type KeptChart = Schemas['KeptChart']
export type EditChart = Schemas['EditChart']
export type WrittenBar = Schemas['WrittenBar']
export type BarChord = Schemas['BarChord']
export type Turnaround = Schemas['Turnaround']
export type Revision = Schemas['Revision']
export type Imported = Schemas['Imported']
export type NewChart = Schemas['NewChart']
export type ChartEntry = Schemas['ChartEntry']
export type ChordSpan = Schemas['ChordSpan']
export type Change = Schemas['Change']
export type NeckMap = Schemas['Map']
export type Position = Schemas['Position']
export type ChordView = Schemas['ChordView']
export type Overlay = Schemas['Overlay']
export type Layout = Schemas['Layout']
export type Shape = Schemas['Shape']
export type PlacedTone = Schemas['PlacedTone']
export type Neck = Schemas['Neck']
export type Instrument = Schemas['Instrument']
export type Hands = Schemas['Hands']
export type Swap = Schemas['Swap']
export type Player = Schemas['Player']
export type BarLine = Schemas['BarLine']
export type Tab = Schemas['Tab']
export type Access = Schemas['Access']
export type Backup = Schemas['Backup']
export type Backups = Schemas['Backups']
export type BundlePreview = Schemas['BundlePreview']
export type HeardSoFar = Schemas['HeardSoFar']
export type LiveNote = Schemas['LiveNote']
export type FigureBeside = Schemas['FigureBeside']
export type PlayedPass = Schemas['PlayedPass']
export type HeardTakeNote = Schemas['HeardTakeNote']
export type KeptTake = Schemas['KeptTake']
export type TakeEntry = Schemas['TakeEntry']
export type TakeVerdict = Schemas['TakeVerdict']
export type TakeDraft = Schemas['Take']
export type KeyEvent = Schemas['KeyEvent']
export type StandInFaults = Schemas['StandInFaults']
export type RecordingBegun = Schemas['RecordingBegun']
export type NearbyTargets = Schemas['NearbyTargets']
export type NearbyTarget = Schemas['NearbyTarget']
export type Approaches = Schemas['Approaches']
export type ApproachesRequest = Schemas['ApproachesRequest']
export type ChangeRequest = Schemas['ChangeRequest']
export type ChordRequest = Schemas['ChordRequest']
export type ApproachOption = Schemas['ApproachOption']
export type Path = Schemas['Path']
export type PathTarget = Schemas['PathTarget']
export type Functions = Schemas['Functions']
export type Run = Schemas['Run']
export type RunRequest = Schemas['RunRequest']
export type ChangeView = Schemas['ChangeView']
export type Move = Schemas['Move']
export type Line = Schemas['Line']
export type LineEvent = Schemas['LineEvent']
export type LineChoice = Schemas['LineChoice']
export type LineEntry = Schemas['LineEntry']
export type KeptLine = Schemas['KeptLine']
export type KeptLick = Schemas['KeptLick']
export type Lick = Schemas['Lick']
export type LickEvent = Schemas['Event']
export type LickEdit = Schemas['LickEdit']
export type WrittenLick = Schemas['WrittenLick']
export type StaffBar = Schemas['StaffBar']
export type StaffNote = Schemas['StaffNote']
export type FindLicks = Schemas['FindLicks']
export type FoundLicks = Schemas['FoundLicks']
export type ImportedLick = Schemas['ImportedLick']
export type LickVariant = Schemas['LickVariant']
export type Place = Schemas['Place']
export type Target = Schemas['Target']
export type Exercise = Schemas['Exercise']
export type KeptExercise = Schemas['KeptExercise']
export type EtudeRequest = Schemas['EtudeRequest']
export type Etude = Schemas['Etude']
export type WrittenExercise = Schemas['WrittenExercise']
export type ExerciseChoice = Schemas['ExerciseChoice']
export type LayoutChoice = Schemas['LayoutChoice']
export type Performance = Schemas['Performance']
export type PerformanceRequest = Schemas['PerformanceRequest']
export type PassRequest = Schemas['PassRequest']
export type Pass = Schemas['Pass']
export type PassPlace = Schemas['PassPlace']
export type StageSpan = Schemas['StageSpan']
export type StageNext = Schemas['StageNext']
export type Band = Schemas['Band']
export type KeptBand = Schemas['KeptBand']
export type Routine = Schemas['Routine']
export type Segment = Schemas['Segment']
export type RoutineView = Schemas['RoutineView']
export type ChorusView = Schemas['ChorusView']
export type ChorusEdit = Schemas['ChorusEdit']
export type ChorusPlan = Schemas['ChorusPlan']
export type Chorus = Schemas['Chorus']
export type Block = Schemas['Block']
export type Solo = Schemas['Solo']
export type SoloEntry = Schemas['SoloEntry']
export type KeptSolo = Schemas['KeptSolo']
export type ChorusIssue = Schemas['ChorusIssue']
export type Figures = Schemas['Figures']
export type Concession = Schemas['Concession']
export type TransposedSolo = Schemas['TransposedSolo']
export type SoloConcession = Schemas['SoloConcession']
export type Choices = Schemas['Choices']
export type Question = Schemas['Question']
export type CardFacts = Schemas['CardFacts']
export type AnswerMark = Schemas['AnswerMark']
export type GivenPart = Schemas['GivenPart']
export type Deck = Schemas['Deck']
export type KeptReview = Schemas['KeptReview']
export type Session = Schemas['Session']
export type SessionBlock = Schemas['SessionBlock']
export type KeptSession = Schemas['KeptSession']
export type SessionEntry = Schemas['SessionEntry']
export type Pictures = Schemas['Pictures']
export type ItemTempos = Schemas['ItemTempos']
export type LogEntry = Schemas['LogEntry']
export type TimedMarks = Schemas['TimedMarks']
export type PracticeSettings = Schemas['PracticeSettings']
export type KeptLogEntry = Schemas['KeptLogEntry']
export type LogImport = Schemas['LogImport']

/** What a form refuses is an answer like any other, and no failed request. */
const preferred = { Prefer: 'refusal-as-answer' }

export const client = createClient<paths>({
  baseUrl: location.origin,
  headers: preferred,
  fetch: fetchInTime,
})

type FieldProblem = Schemas['FieldProblem']

/** A problem the server told of, in its own words. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    /** Every part of what was asked that is at fault. */
    readonly fields: FieldProblem[] = [],
  ) {
    super(detail)
  }

  /** Whether the server or the network is at fault, not what was asked. */
  get isFault(): boolean {
    return this.status === 0 || this.status >= 500
  }

  /** Whether what was asked for is kept, but cannot be read any more. */
  get damaged(): boolean {
    return this.fields.some((field) => field.damaged)
  }

  /** The places a refused target could be had at instead. */
  get targets(): Target[] {
    return this.fields[0]?.nearestTargets ?? []
  }

  /** The nearest instrument that works, where one was refused. */
  get instrument(): Instrument | undefined {
    return this.fields[0]?.nearestInstrument
  }

  /** The nearest exercise that can be written, where one was refused. */
  get exercise(): Exercise | undefined {
    return this.fields[0]?.nearestExercise
  }

  /** What of a text could not be read, each with its place. */
  get faults(): TextFault[] {
    return this.fields
      .filter(({ field, column }) => column !== undefined || field === 'body')
      .map(({ message, line = 0, column = 0, value, nearest }) => {
        return { message, line, column, nearest: nearest ?? [], symbol: String(value ?? '') }
      })
  }
}

/** Something in a text that cannot be read: its place, and what was meant perhaps. */
export interface TextFault {
  /** Both count from 1, columns in characters; 0 where there is no such place. */
  line: number
  column: number
  symbol: string
  nearest: string[]
  message: string
}

interface Answer<T> {
  data?: T
  error?: Schemas['Problem']
  response: Response
}

function problemOf(status: number, error: Schemas['Problem'] | undefined): Problem {
  return new Problem(status, error?.detail ?? `Undaris answered with status ${status}.`, error?.errors ?? [])
}

/** A file's bytes or a pasted text go as they are. */
const asItIs = (content: Blob | string) => ({
  body: content as unknown as string,
  bodySerializer: (body: unknown) => body as string,
  headers: { 'Content-Type': 'application/octet-stream', ...preferred },
})

/** Reads a chart from a file's bytes or a pasted text; of a MIDI file the voices given, or those that fit best. */
export async function importChart(
  content: Blob | string,
  terms: { name?: string; voices?: string } = {},
): Promise<Imported> {
  return answer(client.POST('/api/compute/chart/import', { params: { query: terms }, ...asItIs(content) }))
}

/** Reads a lick from a file's bytes or a pasted text; what it does not say is taken from the terms. */
export async function importLick(
  content: Blob | string,
  terms: { name?: string; voices?: string; tonic?: string; meter?: string; fret?: number },
): Promise<ImportedLick> {
  return answer(client.POST('/api/compute/lick/import', { params: { query: terms }, ...asItIs(content) }))
}

/** The body of an answer, or its problem thrown. */
export async function answer<T>(asked: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>
  try {
    got = await asked
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Problem(0, 'Undaris does not answer. Is it still running?')
  }
  networkAnswers()
  if (got.response.headers.get('Preference-Applied') === 'refusal-as-answer') {
    throw problemOf(422, got.data as unknown as Schemas['Problem'])
  }
  if (got.error || !got.response.ok) {
    throw problemOf(got.response.status, got.error)
  }
  return got.data as T
}

/** Hands on the next piece of a recording, which begins at so many bytes; the start of the tune once it is known. */
export async function sendPiece(id: string, at: number, piece: Blob, start?: number): Promise<HeardSoFar> {
  const query = { at, ...(start === undefined ? {} : { start, started: true }) }
  return answer(
    client.POST('/api/recordings/{id}/sound', { params: { path: { id }, query }, ...asItIs(piece) }),
  )
}

/** Hands on the next piece of a bundle, which begins at so many bytes. */
export async function sendBundlePiece(id: string, at: number, piece: Blob): Promise<unknown> {
  const params = { path: { id }, query: { at } }
  return answer(client.POST('/api/bundles/{id}/piece', { params, ...asItIs(piece) }))
}
