import { defineStore } from 'pinia'
import { markRaw, shallowRef } from 'vue'
import {
  answer,
  client,
  type Chart,
  type Hands,
  type KeptSolo,
  type Solo,
  type SoloEntry,
} from '../api/client'
import { createdAs } from '../api/created'
import { drafts } from './browser'
import { Collection } from './collection'
import type { Saved } from './kept'

/**
 * A solo as it was last edited: its choruses, and the tune and hands they lie over and for.
 * Where the tune has moved since, the solo is shown moved along; it is written anew only
 * when it is edited there, so that it lies as it was, to the note, when the tune comes back.
 */
export interface SoloDocument {
  chartId: number
  solo: Solo
  chart: Chart
  hands?: Hands
}

/** The solos over the tunes, each a document of its own. */
export const useSolos = defineStore('solos', () => {
  const entries = shallowRef<SoloEntry[]>([])
  let listed = 0

  const savedAs = (k: KeptSolo): Saved<SoloDocument> => ({
    id: k.id,
    version: k.version,
    body: { chartId: k.chartId, solo: k.solo, chart: k.chart, hands: k.hands },
  })
  const documents = new Collection<SoloDocument, undefined>({
    name: 'solo',
    read: async (id) => savedAs(await answer(client.GET('/api/solos/{id}', { params: { path: { id } } }))),
    create: async (body, uid) =>
      savedAs(await answer(client.POST('/api/solos', { body, params: createdAs(uid) }))),
    replace: async (id, { solo, chart, hands }, version, keepBefore) =>
      savedAs(
        await answer(
          client.PUT('/api/solos/{id}', {
            params: { path: { id } },
            body: { solo, chart, hands, version, keepBefore },
          }),
        ),
      ),
    restore: (id) => answer(client.POST('/api/solos/{id}/restore', { params: { path: { id } } })),
    show: (body) => Promise.resolve({ body, shown: undefined }),
    called: ({ solo }) => solo.name,
    drafts,
    onSaved: ({ body }, isNew) => {
      if (isNew && body.chartId === listed) void list(body.chartId)
    },
  })

  /** Lists the solos over a tune. */
  async function list(chartId: number) {
    listed = chartId
    const got = await answer(client.GET('/api/solos', { params: { query: { chart: chartId } } }))
    if (listed === chartId) entries.value = got
    return got
  }

  return { entries, documents: markRaw(documents), savedAs, list }
})
