import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  answer,
  client,
  type HeardSoFar,
  type KeptTake,
  type LiveNote,
  type PlayedPass,
  type TakeDraft,
} from '../api/client'
import { inputTrouble } from './inputs'
import { PieceSender, sendSpooled } from './pieces'
import type { Source } from './source'
import { browserSpool } from './spool'

/** What goes on with the input. */
export type RecordingState = 'idle' | 'opening' | 'hearing' | 'recording' | 'keeping'

/** What is recorded, or only heard: one at a time, for the whole page. */
export const useRecording = defineStore('recording', () => {
  const state = ref<RecordingState>('idle')
  /** Why there is no input, or why what is played does not arrive. */
  const trouble = ref('')
  /** What is wrong with the sides of a stereo input. */
  const sides = ref('')
  const heard = shallowRef<HeardSoFar>()
  const seconds = ref(0)
  const sounding = computed<LiveNote | undefined>(() => heard.value?.sounding)
  const recordsNow = computed(() => state.value === 'recording')
  /** The tune that a take is recorded over. */
  const over = ref({ id: 0, title: '' })
  let source: Source | undefined
  let sender: PieceSender | undefined
  let id: string | undefined
  let chart = 0
  let draft: TakeDraft | undefined
  let turn = 0
  const spool = browserSpool()
  // What an earlier page has left goes to the server, which offers it as a recording that was cut off.
  void sendSpooled(spool).catch(() => {})
  /** Called with each note that begins. */
  let onStroke: ((stroke: LiveNote) => void) | undefined

  /** Opens an input and begins: to keep what is played as a take, or only to hear it. */
  async function begin(
    open: () => Promise<Source>,
    take: TakeDraft,
    chartId: number,
    keep: boolean,
    struck?: (stroke: LiveNote) => void,
  ) {
    await cancel()
    const mine = ++turn
    trouble.value = ''
    sides.value = ''
    heard.value = undefined
    seconds.value = 0
    state.value = 'opening'
    try {
      const opened = await open()
      if (mine !== turn) return opened.end()
      source = opened
      chart = chartId
      over.value = { id: chartId, title: take.chart.title }
      draft = take
      onStroke = struck
      const kept = { sound: 'sound', keys: 'keys' } as const
      const onlyHeard = { sound: 'listen', keys: 'listen-keys' } as const
      const kind = (keep ? kept : onlyHeard)[opened.kind]
      const body = { kind, rate: opened.rate, chartId, take }
      const begun = await answer(client.POST('/api/recordings', { body }))
      if (mine !== turn) {
        opened.end()
        return void discard(begun.id)
      }
      id = begun.id
      const sending = new PieceSender(
        begun.id,
        (so) => {
          if (source) heard.value = so
          so.strokes.forEach((stroke) => onStroke?.(stroke))
        },
        (problem) => (trouble.value = problem ? troubleOf(problem, keep) : ''),
        keep ? { spool } : {},
      )
      sender = sending
      opened.whenGone((why) => {
        if (why) trouble.value = why
        if (state.value === 'hearing') void cancel()
        else gone.value?.()
      })
      opened.whenSides?.((what) => (sides.value = what))
      opened.begin((bytes) => {
        sending.add(bytes)
        seconds.value = opened.seconds()
      })
      state.value = keep ? 'recording' : 'hearing'
    } catch (error) {
      if (mine !== turn) return
      endSource()
      if (id) void discard(id)
      id = undefined
      sender = undefined
      state.value = 'idle'
      trouble.value =
        error instanceof DOMException
          ? inputTrouble(error)
          : error instanceof Error
            ? error.message
            : String(error)
    }
  }
  /** What is said of a piece that has not arrived: nothing of a take is lost meanwhile. */
  const troubleOf = ({ status, message }: { status: number; message: string }, keep: boolean) =>
    keep && (status === 0 || status >= 500)
      ? `${message.replace(/\.?$/, '.')} What you play is kept here, and sent when it answers`
      : message
  const discard = (gone: string) =>
    client.DELETE('/api/recordings/{id}', { params: { path: { id: gone } } }).catch(() => {})

  function endSource() {
    source?.end()
    source = undefined
    heard.value = undefined
  }

  /** Called when the input has ended by itself. */
  const gone = shallowRef<() => void>()

  /** Says at which second of the sound the tune begins. */
  function startsAt(start: number) {
    if (sender) sender.start = start
    if (draft) draft = { ...draft, start }
  }

  /** All that was played until now, between two seconds of the sound. */
  async function notesBetween(from: number, to: number) {
    const heardNow = id
    if (!heardNow) return []
    await sender?.settled()
    const query = { from: Math.max(0, from), to: Math.max(0, to) }
    return answer(client.GET('/api/recordings/{id}/notes', { params: { path: { id: heardNow }, query } }))
  }

  /** Ends it and keeps the take, over the passes that the band played meanwhile; nothing where it was only heard. */
  async function finish(
    more: Partial<TakeDraft> = {},
    passes: PlayedPass[] = [],
  ): Promise<KeptTake | undefined> {
    const keep = state.value === 'recording'
    const ending = id
    if (!keep || !ending || !draft) return void (await cancel())
    state.value = 'keeping'
    endSource()
    await sender?.settled()
    try {
      return await answer(
        client.POST('/api/recordings/{id}/take', {
          params: { path: { id: ending } },
          body: { chartId: chart, take: { ...draft, ...more }, passes },
        }),
      )
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : String(error)
      return undefined
    } finally {
      state.value = 'idle'
      id = undefined
    }
  }

  /** Ends it, and puts its bars in the place of those of a take; the take as it is then, nothing if it could not be. */
  async function punch(bars: { takeId: number; version: number; from: number; to: number }) {
    const ending = id
    if (state.value !== 'recording' || !ending || !draft) return undefined
    state.value = 'keeping'
    endSource()
    await sender?.settled()
    const path = { id: ending }
    try {
      return await answer(
        client.POST('/api/recordings/{id}/punch', { params: { path }, body: { ...bars, take: draft } }),
      )
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : String(error)
      await discard(ending)
      return undefined
    } finally {
      state.value = 'idle'
      id = undefined
    }
  }

  /** Ends it and keeps nothing. */
  async function cancel() {
    turn++
    endSource()
    const ending = id
    const sending = sender
    id = undefined
    sender = undefined
    onStroke = undefined
    state.value = 'idle'
    // A piece that is on its way must not come after the end.
    await sending?.stop()
    if (ending) await discard(ending)
  }

  return {
    ...{ state, trouble, sides, over, heard, seconds, sounding, recordsNow, gone },
    ...{ begin, finish, punch, cancel, startsAt, notesBetween },
    soundSeconds: () => source?.seconds() ?? 0,
  }
})
