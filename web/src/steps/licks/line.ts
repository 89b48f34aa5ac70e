import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { remembered, useAnswer } from '../../api/ask'
import {
  answer,
  client,
  type KeptLick,
  type KeptLine,
  type LineChoice,
  type LineEntry,
} from '../../api/client'
import { useView } from '../../address/view'
import { useTune } from '../../document/tune'
import type { LicksQuery } from './address'

/**
 * The line under work: what is chosen of it, the line the server writes from that, the
 * lines already kept, and the one of those that is open.
 */
export function useLine(lick: () => KeptLick | undefined, query: LicksQuery, wanted: () => boolean) {
  const tune = useTune()
  const view = useView()
  const entries = shallowRef<LineEntry[]>([])
  const notice = ref('')
  const deleted = shallowRef<LineEntry>()

  const approach = computed(
    () =>
      tune.choices?.approaches.find((a) => a === view.approach.value) ?? tune.choices?.approaches[0] ?? '',
  )
  const { subdivisions, subdivision } = view
  const openId = computed(() => query.line.value ?? 0)
  const choice = computed<LineChoice | undefined>(() => {
    const change = view.pickedChange.value?.tick
    const position = view.position.value?.id
    if (change === undefined || !position) return undefined
    return {
      ...{ change, position, target: view.target.value, approach: approach.value },
      ...{ subdivision: subdivision.value, strategy: view.strategy.value },
    }
  })

  const {
    answer: written,
    refusal,
    problem,
  } = useAnswer(
    () => {
      const from = lick()
      if (!wanted() || openId.value || !tune.music || !choice.value || !from) return undefined
      return { chart: tune.music, hands: tune.hands, lick: from.lick, ...choice.value }
    },
    remembered((body, signal) => answer(client.POST('/api/compute/line', { body, signal }))),
  )
  const { answer: around } = useAnswer(
    () => {
      if (!wanted() || openId.value || !tune.music || !choice.value) return undefined
      const { change, position, strategy } = choice.value
      return { chart: tune.music, hands: tune.hands, change, position, strategy }
    },
    remembered((body, signal) => answer(client.POST('/api/compute/change', { body, signal }))),
  )
  const targets = computed(() => around.value?.to ?? [])
  const nearest = computed(() => problem.value?.targets ?? [])

  // A kept line goes with its tune: it is read again when that has moved and is saved.
  const { answer: opened, refusal: notOpened } = useAnswer(
    () =>
      openId.value
        ? { id: openId.value, key: tune.chart?.key, capo: tune.chart?.capo, hands: tune.hands }
        : undefined,
    async ({ id }, signal): Promise<KeptLine> => {
      await tune.settled()
      return answer(client.GET('/api/lines/{id}', { params: { path: { id } }, signal }))
    },
  )
  const line = computed(() => opened.value?.line ?? written.value)

  /** What is chosen, as one text: a choice that is made while a line is open closes it. */
  const chosen = () =>
    JSON.stringify([query.lick.value, query.panel.value, choice.value, view.picked.value?.tick])
  let openedAs = ''
  watch(opened, async (kept) => {
    openedAs = ''
    if (!kept) return
    await view.set({ at: leavingTick(kept), pos: kept.choice.position })
    await nextTick()
    openedAs = chosen()
  })
  watch(chosen, (now) => {
    if (openId.value && opened.value && openedAs && now !== openedAs) void query.set({ line: undefined })
  })
  watch(notOpened, (text) => text && tune.tell(new Error(text)))

  async function list() {
    const chart = tune.id
    if (!chart) return
    const got = await answer(client.GET('/api/lines', { params: { query: { chart } } }))
    if (chart === tune.id) entries.value = got
  }
  watch(
    () => tune.id,
    () => void list().catch(tune.tell),
    { immediate: true },
  )

  async function keep() {
    const from = lick()
    if (!choice.value || !from || !written.value || opened.value) return
    if (!(await tune.settled())) {
      notice.value = 'The tune itself could not be saved, so the line was not kept.'
      return
    }
    try {
      const kept = await answer(
        client.POST('/api/lines', {
          body: { chartId: tune.id, lickId: from.id, hands: tune.hands, ...choice.value },
        }),
      )
      await list()
      deleted.value = undefined
      notice.value = `Kept as “${kept.name}”.`
      await query.set({ line: kept.id })
    } catch (error) {
      notice.value = error instanceof Error ? error.message : String(error)
    }
  }

  async function remove(entry: LineEntry) {
    try {
      await answer(
        client.DELETE('/api/lines/{id}', {
          params: { path: { id: entry.id }, query: { version: entry.version } },
        }),
      )
      if (openId.value === entry.id) await query.set({ line: undefined })
      deleted.value = entry
      notice.value = `“${entry.name}” is deleted.`
      await list()
    } catch (error) {
      tune.tell(error)
    }
  }

  async function restore() {
    const id = deleted.value?.id
    if (!id) return
    try {
      await answer(client.POST('/api/lines/{id}/restore', { params: { path: { id } } }))
      deleted.value = undefined
      notice.value = ''
      await list()
    } catch (error) {
      tune.tell(error)
    }
  }

  /** Takes up the choices of the open line, to work on it further. */
  function takeUp() {
    const kept = opened.value
    if (!kept) return
    const { choice, lickId } = kept
    void query.set({ line: undefined, lick: lickId })
    void view.set({
      ...{ at: leavingTick(kept), pos: choice.position, approach: choice.approach },
      ...{ sub: choice.subdivision, strategy: choice.strategy, target: choice.target },
    })
  }

  return {
    ...{ entries, targets, line, opened, openId, approach, subdivision, subdivisions, refusal, nearest },
    ...{ notice, deleted, keep, remove, restore, takeUp },
  }
}

/** The tick at which the chord begins that a kept line leaves. */
function leavingTick(kept: KeptLine): number {
  return kept.chart.changes.find((c) => c.tick === kept.choice.change)?.leaving.tick ?? 0
}
export type LineWork = ReturnType<typeof useLine>
