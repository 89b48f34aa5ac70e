import { computed, ref, shallowRef, watch } from 'vue'
import {
  answer,
  client,
  Problem,
  type KeptLick,
  type KeptLine,
  type Line,
  type LineChoice,
  type LineEntry,
  type PlacedTone,
  type Target,
} from '../api/client'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

/**
 * The line under work: what is chosen of it, the line the server writes from
 * that, the lines already kept, and the one of those that is open.
 */
export function useLine() {
  const tune = useTune()
  const view = useView()

  const licks = shallowRef<KeptLick[]>([])
  const entries = shallowRef<LineEntry[]>([])
  const targets = shallowRef<PlacedTone[]>([])
  const written = shallowRef<Line>()
  const opened = shallowRef<KeptLine>()
  const refusal = ref('')
  const nearest = shallowRef<Target[]>([])
  const said = ref('')
  const deleted = shallowRef<LineEntry>()

  const lick = computed(() => licks.value.find((l) => String(l.id) === view.text('lick')) ?? licks.value[0])
  const approach = computed(() => view.text('approach') || tune.choices?.approaches[0] || '')
  const { subdivisions, subdivision } = view
  const openId = computed(() => Number(view.text('line')) || 0)
  const line = computed(() => opened.value?.line ?? written.value)
  const choice = computed<LineChoice | undefined>(() => {
    const change = view.change.value?.tick
    const position = view.position.value?.id
    if (change === undefined || !position) return undefined
    return {
      change,
      position,
      school: view.text('school') || undefined,
      target: view.target.value,
      approach: approach.value,
      subdivision: subdivision.value,
    }
  })

  async function load() {
    try {
      licks.value = await answer(client.GET('/api/licks'))
      await list()
    } catch (error) {
      tune.tell(error)
    }
  }

  async function list() {
    const chart = tune.id
    entries.value = await answer(client.GET('/api/lines', { params: { query: { chart } } }))
  }

  // The line follows every choice; an answer that has been overtaken is dropped.
  let asked = 0
  watch(
    [() => tune.chart, choice, lick, () => tune.hands],
    async ([chart, chosen, from, hands]) => {
      const mine = ++asked
      if (!chart || !chosen || !from) {
        written.value = undefined
        return
      }
      const { change, position, school } = chosen
      try {
        const [got, around] = await Promise.allSettled([
          answer(client.POST('/api/compute/line', { body: { chart, hands, lick: from.lick, ...chosen } })),
          answer(client.POST('/api/compute/change', { body: { chart, hands, change, position, school } })),
        ])
        if (mine !== asked) return
        if (around.status === 'fulfilled') targets.value = around.value.to
        if (got.status === 'rejected') throw got.reason
        written.value = got.value
        refusal.value = ''
        nearest.value = []
      } catch (error) {
        written.value = undefined
        refusal.value = error instanceof Error ? error.message : String(error)
        nearest.value = error instanceof Problem ? error.nearest : []
      }
    },
    { immediate: true },
  )

  watch(
    openId,
    async (id) => {
      if (!id) {
        opened.value = undefined
        return
      }
      try {
        const kept = await answer(client.GET('/api/lines/{id}', { params: { path: { id } } }))
        if (openId.value !== id) return
        opened.value = kept
        await view.set({ line: String(id), at: leavingTick(kept), pos: kept.choice.position })
      } catch (error) {
        opened.value = undefined
        tune.tell(error)
      }
    },
    { immediate: true },
  )

  async function keep() {
    if (!choice.value || !lick.value || !written.value || opened.value) return
    if (!(await tune.settled())) {
      said.value = 'The tune itself could not be saved, so the line was not kept.'
      return
    }
    try {
      const kept = await answer(
        client.POST('/api/lines', {
          body: { chartId: tune.id, lickId: lick.value.id, hands: tune.hands, ...choice.value },
        }),
      )
      await list()
      deleted.value = undefined
      said.value = `Kept as “${kept.name}”.`
      await view.set({ line: String(kept.id) })
    } catch (error) {
      said.value = error instanceof Error ? error.message : String(error)
    }
  }

  async function remove(entry: LineEntry) {
    try {
      await answer(
        client.DELETE('/api/lines/{id}', {
          params: { path: { id: entry.id }, query: { version: entry.version } },
        }),
      )
      if (openId.value === entry.id) await view.set({ line: undefined })
      deleted.value = entry
      said.value = `“${entry.name}” is deleted.`
      await list()
    } catch (error) {
      tune.tell(error)
    }
  }

  async function bringBack() {
    const id = deleted.value?.id
    if (!id) return
    await answer(client.POST('/api/lines/{id}/restore', { params: { path: { id } } }))
    deleted.value = undefined
    said.value = ''
    await list()
  }

  /** Takes up the choices of the open line, to work on it further. */
  function takeUp() {
    const kept = opened.value
    if (!kept) return
    const { choice, lickId } = kept
    void view.set({
      line: undefined,
      at: leavingTick(kept),
      pos: choice.position,
      lick: String(lickId),
      approach: choice.approach,
      sub: choice.subdivision,
      school: choice.school,
      target: choice.target ? `${choice.target.string}:${choice.target.fret}` : undefined,
    })
  }

  return {
    licks,
    entries,
    targets,
    line,
    lick,
    opened,
    openId,
    approach,
    subdivision,
    subdivisions,
    refusal,
    nearest,
    said,
    deleted,
    load,
    keep,
    remove,
    bringBack,
    takeUp,
  }
}

/** Where the chord begins that a kept line leaves, as the address holds it. */
function leavingTick(kept: KeptLine): string {
  return String(kept.chart.changes.find((c) => c.tick === kept.choice.change)?.leaving.tick ?? 0)
}
export type LineWork = ReturnType<typeof useLine>
