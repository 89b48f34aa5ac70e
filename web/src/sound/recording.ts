import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { answer, client, type HeardSoFar, type KeptTake, type LiveNote, type TakeDraft } from '../api/client'
import { inputTrouble, type Input } from './inputs'
import type { KeysInput } from './keysinputs'
import { pcm16, PieceSender } from './pieces'

/** What goes on with the input. */
export type RecordingState = 'idle' | 'opening' | 'hearing' | 'recording' | 'keeping'

/** What is recorded, or only heard: one at a time, for the whole page. */
export const useRecording = defineStore('recording', () => {
  const state = ref<RecordingState>('idle')
  /** Why there is no input, or why what is played does not arrive. */
  const trouble = ref('')
  const heard = shallowRef<HeardSoFar>()
  const seconds = ref(0)
  const sounding = computed<LiveNote | undefined>(() => heard.value?.sounding)
  const recordsNow = computed(() => state.value === 'recording')
  let input: Input | undefined
  let keys: KeysInput | undefined
  let sender: PieceSender | undefined
  let id: string | undefined
  let chart = 0
  let draft: TakeDraft | undefined
  let turn = 0

  /** Opens an input and begins: to keep what is played as a take, or only to hear it. */
  async function begin(open: () => Promise<Input>, take: TakeDraft, chartId: number, keep: boolean) {
    await cancel()
    const mine = ++turn
    trouble.value = ''
    heard.value = undefined
    seconds.value = 0
    state.value = 'opening'
    try {
      const opened = await open()
      if (mine !== turn) return opened.end()
      input = opened
      chart = chartId
      draft = take
      const begun = await answer(
        client.POST('/api/recordings', {
          body: { kind: keep ? 'sound' : 'ear', rate: opened.rate, chartId, take },
        }),
      )
      if (mine !== turn) return opened.end()
      id = begun.id
      sender = new PieceSender(
        begun.id,
        (so) => (heard.value = so),
        (problem) => (trouble.value = problem?.message ?? ''),
      )
      const sending = sender
      opened.gone = (why) => {
        if (why) trouble.value = why
        gone.value?.()
      }
      opened.begin((samples) => {
        sending.add(pcm16(samples))
        seconds.value += samples.length / opened.rate
      })
      state.value = keep ? 'recording' : 'hearing'
    } catch (error) {
      if (mine !== turn) return
      input?.end()
      input = undefined
      state.value = 'idle'
      trouble.value =
        error instanceof DOMException
          ? inputTrouble(error)
          : error instanceof Error
            ? error.message
            : String(error)
    }
  }
  /** Begins a take of an instrument that sends keys. */
  async function beginKeys(open: () => Promise<KeysInput>, take: TakeDraft, chartId: number) {
    await cancel()
    const mine = ++turn
    trouble.value = ''
    heard.value = undefined
    seconds.value = 0
    state.value = 'opening'
    try {
      const opened = await open()
      if (mine !== turn) return opened.end()
      keys = opened
      chart = chartId
      draft = take
      const begun = await answer(client.POST('/api/recordings', { body: { kind: 'keys', chartId, take } }))
      if (mine !== turn) return opened.end()
      id = begun.id
      const sending = new PieceSender(
        begun.id,
        (so) => (heard.value = so),
        (problem) => (trouble.value = problem?.message ?? ''),
      )
      sender = sending
      opened.gone = (why) => {
        if (why) trouble.value = why
        gone.value?.()
      }
      const text = new TextEncoder()
      opened.begin((events) => {
        sending.add(text.encode(events.map((event) => `${JSON.stringify(event)}\n`).join('')))
        seconds.value = opened.seconds()
      })
      state.value = 'recording'
    } catch (error) {
      if (mine !== turn) return
      endInput()
      state.value = 'idle'
      trouble.value = error instanceof Error ? error.message : String(error)
    }
  }
  function endInput() {
    input?.end()
    keys?.end()
    input = undefined
    keys = undefined
  }

  /** Called when the input has ended by itself. */
  const gone = shallowRef<() => void>()

  /** Says at which second of the sound the tune begins. */
  function startsAt(start: number) {
    if (sender) sender.start = start
    if (draft) draft = { ...draft, start }
  }

  /** Ends it and keeps the take; nothing where it was only heard. */
  async function finish(more: Partial<TakeDraft> = {}): Promise<KeptTake | undefined> {
    const keep = state.value === 'recording'
    const ending = id
    if (!keep || !ending || !draft) return void (await cancel())
    state.value = 'keeping'
    endInput()
    await sender?.settled()
    try {
      return await answer(
        client.POST('/api/recordings/{id}/take', {
          params: { path: { id: ending } },
          body: { chartId: chart, take: { ...draft, ...more } },
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

  /** Ends it and keeps nothing. */
  async function cancel() {
    turn++
    endInput()
    const ending = id
    id = undefined
    sender = undefined
    state.value = 'idle'
    heard.value = undefined
    if (ending)
      await client.DELETE('/api/recordings/{id}', { params: { path: { id: ending } } }).catch(() => {})
  }

  return {
    ...{ state, trouble, heard, seconds, sounding, recordsNow, gone },
    ...{ begin, beginKeys, finish, cancel, startsAt },
    soundSeconds: () => input?.seconds() ?? keys?.seconds() ?? 0,
  }
})
