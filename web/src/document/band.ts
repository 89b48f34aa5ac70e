import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { useAnswer } from '../api/ask'
import { answer, client, Problem, type Band, type KeptBand } from '../api/client'
import { createdAs } from '../api/created'
import { drafts } from './browser'
import { Collection } from './collection'
import type { Kept, Saved } from './kept'
import { useTune } from './tune'
import { alwaysUndoable } from './undo'

/** The band of a tune: how it plays, and the routines over the tune. */
interface BandDocument {
  chartId: number
  band: Band
}

/** How the band plays the tune under work; kept with the tune, and undone like all else. */
export const useBand = defineStore('band', () => {
  const tune = useTune()
  const kept = shallowRef<Kept<BandDocument, undefined>>()
  const ready = ref(false)

  const savedAs = (k: KeptBand): Saved<BandDocument> => ({
    id: k.id,
    version: k.version,
    body: { chartId: k.chartId, band: k.band },
  })
  const bands = new Collection<BandDocument, undefined>({
    name: 'band',
    read: async (id) => savedAs(await answer(client.GET('/api/bands/{id}', { params: { path: { id } } }))),
    create: async (body, uid) => {
      try {
        return savedAs(await answer(client.POST('/api/bands', { body, params: createdAs(uid) })))
      } catch (error) {
        // Another window was first: what it kept stays among the versions.
        if (!(error instanceof Problem) || error.status !== 409) throw error
        const found = await find(body.chartId)
        if (!found) throw error
        const path = { id: found.id }
        const replacing = { band: body.band, version: found.version, keepBefore: true }
        return savedAs(await answer(client.PUT('/api/bands/{id}', { params: { path }, body: replacing })))
      }
    },
    replace: async (id, { band }, version, keepBefore) =>
      savedAs(
        await answer(
          client.PUT('/api/bands/{id}', { params: { path: { id } }, body: { band, version, keepBefore } }),
        ),
      ),
    restore: (id) => answer(client.POST('/api/bands/{id}/restore', { params: { path: { id } } })),
    show: (body) => Promise.resolve({ body, shown: undefined }),
    called: () => 'the band',
    drafts,
    onSaved: (_, isNew) => {
      if (isNew) for (const one of begun.values()) bands.adopt(one)
    },
  })
  /** Bands that are not kept yet, by their tune: what was begun is gone on with. */
  const begun = new Map<number, Kept<BandDocument, undefined>>()

  const find = async (chartId: number) =>
    (await answer(client.GET('/api/bands', { params: { query: { chart: chartId } } })))[0]

  async function open(chartId: number) {
    ready.value = false
    kept.value = undefined
    if (!chartId) return
    try {
      const found = await find(chartId)
      const one = found ? bands.of(found.id) : (begun.get(chartId) ?? bands.fresh())
      if (found) await one.load()
      else if (!begun.has(chartId)) {
        begun.set(chartId, one)
        await one.begin({ chartId, band: {} })
      }
      if (tune.id !== chartId) return
      if (found?.damaged) tune.tell(new Problem(0, damagedSays))
      kept.value = one
      ready.value = true
    } catch (error) {
      tune.tell(error)
    }
  }
  watch(() => tune.id, open, { immediate: true })
  alwaysUndoable(() => kept.value)

  const band = computed<Band>(() => kept.value?.body.value?.band ?? {})

  /** Changes something of the band; what stands in the way is told on the page. */
  async function edit(label: string, change: Partial<Band>, gesture?: string): Promise<Problem | undefined> {
    const refused = await kept.value?.edit(
      label,
      (now) =>
        Promise.resolve({ body: { ...now, band: compact({ ...now.band, ...change }) }, shown: undefined }),
      gesture,
    )
    if (refused) tune.tell(refused)
    return refused
  }

  const isSilent = (part: string) => band.value.muted?.includes(part) ?? false
  /** Silences a part, or lets it be heard. */
  function toggleSilent(part: string) {
    const rest = (band.value.muted ?? []).filter((one) => one !== part)
    const muted = isSilent(part) ? rest : [...rest, part]
    return edit(`${isSilent(part) ? 'hear' : 'silence'} the ${part}`, { muted })
  }

  /** Routines are asked for once something plays the tune, or shows them. */
  const needed = ref(false)
  const needRoutines = () => (needed.value = true)
  /** The routines of the tune: the ready-made ones, then the player's own. */
  const { answer: routines } = useAnswer(
    () =>
      needed.value && tune.music && ready.value
        ? { chart: tune.music, own: band.value.routines ?? [] }
        : undefined,
    (body, signal) =>
      answer(client.POST('/api/compute/band/routines', { body: { ...body, hands: tune.hands }, signal })),
  )
  const all = computed(() => routines.value?.routines ?? [])
  /** The routine that is played. */
  const chosen = computed(() => all.value.find((r) => r.routine.name === band.value.chosen) ?? all.value[0])

  /** The routine that is played, once it is known. */
  const whenChosen = () =>
    new Promise<void>((done) => {
      needRoutines()
      if (chosen.value) return done()
      const stop = watch(chosen, (now) => {
        if (!now) return
        stop()
        done()
      })
    })

  return {
    needRoutines,
    whenChosen,
    kept,
    ready,
    band,
    edit,
    isSilent,
    toggleSilent,
    routines: all,
    chosen,
    open,
  }
})

const damagedSays =
  'What was kept of the band and the routines of this tune cannot be read. A plain band stands in its place; what was kept stays among its versions'

/** A band without what says nothing. */
function compact(band: Band): Band {
  return Object.fromEntries(
    Object.entries(band).filter(
      ([, value]) => value !== undefined && value !== '' && value !== false && value !== 0,
    ),
  ) as Band
}
