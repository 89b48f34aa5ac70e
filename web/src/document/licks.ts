import { defineStore } from 'pinia'
import { computed, markRaw, ref, shallowRef } from 'vue'
import { answer, client, type KeptLick, type Lick, type LickEdit, type WrittenLick } from '../api/client'
import { createdAs } from '../api/created'
import { drafts } from './browser'
import { Collection } from './collection'
import type { Saved } from './kept'
import { useTune } from './tune'

/** The licks of the library, each a document of its own once it is worked on. */
export const useLicks = defineStore('licks', () => {
  const tune = useTune()
  const all = shallowRef<KeptLick[]>([])
  const loaded = ref(false)
  /** Those that can be read. */
  const readable = computed(() => all.value.filter((l) => !l.damaged))
  const damaged = computed(() => all.value.filter((l) => l.damaged))

  const heard = () => ({ tempo: tune.chart?.tempo, feel: tune.chart?.feel, swing: tune.chart?.swing })
  /** Reads a lick as it is, or with one edit; or notes out of a longer line. */
  const compute = (lick: Lick, edit?: LickEdit, excerpt?: boolean) =>
    answer(client.POST('/api/compute/lick', { body: { lick, edit, excerpt, ...heard() } }))

  const savedAs = (k: KeptLick): Saved<Lick> => ({ id: k.id, version: k.version, body: k.lick })
  const documents = new Collection<Lick, WrittenLick>({
    name: 'lick',
    read: async (id) => savedAs(await answer(client.GET('/api/licks/{id}', { params: { path: { id } } }))),
    create: async (lick, uid) =>
      savedAs(await answer(client.POST('/api/licks', { body: lick, params: createdAs(uid) }))),
    replace: async (id, lick, version, keepBefore) =>
      savedAs(
        await answer(
          client.PUT('/api/licks/{id}', { params: { path: { id } }, body: { version, lick, keepBefore } }),
        ),
      ),
    restore: (id) => answer(client.POST('/api/licks/{id}/restore', { params: { path: { id } } })),
    show: async (lick) => {
      const written = await compute(lick)
      return { body: written.lick, shown: written }
    },
    called: (lick) => lick.name,
    keepable: (lick) => lick.events.length > 0,
    drafts,
    onSaved: ({ id, version, body }) => note({ id, version, saved: new Date().toISOString(), lick: body }),
  })

  /** Notes how a lick is kept now. */
  function note(kept: KeptLick) {
    const known = all.value.some((l) => l.id === kept.id)
    all.value = known ? all.value.map((l) => (l.id === kept.id ? kept : l)) : [...all.value, kept]
  }

  async function load() {
    all.value = await answer(client.GET('/api/licks'))
    loaded.value = true
  }

  /** A lick without notes, in the tune's key and over its first chord. */
  function blank(): Lick {
    const chord = tune.read?.chordSpans[0]?.chord
    return {
      name: 'New lick',
      about: '',
      tonic: tune.chart?.key.tonic ?? 'A',
      meter: tune.chart?.meter ?? '4/4',
      events: [],
      chords: chord ? [{ tick: 0, chord }] : [],
    }
  }

  async function create(lick: Lick): Promise<KeptLick> {
    const kept = await answer(client.POST('/api/licks', { body: lick }))
    note(kept)
    return kept
  }

  async function remove(id: number) {
    const one = documents.of(id)
    if (one.body.value !== undefined) await one.settled()
    const version = one.version.value || (all.value.find((l) => l.id === id)?.version ?? 1)
    await answer(client.DELETE('/api/licks/{id}', { params: { path: { id }, query: { version } } }))
    documents.forget(id)
    all.value = all.value.filter((l) => l.id !== id)
  }

  async function restore(id: number) {
    note(await answer(client.POST('/api/licks/{id}/restore', { params: { path: { id } } })))
  }

  return {
    all,
    readable,
    damaged,
    loaded,
    documents: markRaw(documents),
    compute,
    blank,
    load,
    create,
    remove,
    restore,
    note,
  }
})
