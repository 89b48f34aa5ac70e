import { defineStore } from 'pinia'
import { computed, markRaw, ref, shallowRef } from 'vue'
import { answer, client, type Exercise, type KeptExercise } from '../api/client'
import { createdAs } from '../api/created'
import { drafts } from './browser'
import { Collection } from './collection'
import type { Saved } from './kept'

/** The exercises of the library, each a document of its own once it is worked on. */
export const useExercises = defineStore('exercises', () => {
  const all = shallowRef<KeptExercise[]>([])
  const loaded = ref(false)
  /** Those that can be read. */
  const readable = computed(() => all.value.filter((one) => !one.damaged))
  const damaged = computed(() => all.value.filter((one) => one.damaged))

  const savedAs = (k: KeptExercise): Saved<Exercise> => ({ id: k.id, version: k.version, body: k.exercise })
  const documents = new Collection<Exercise, undefined>({
    name: 'exercise',
    read: async (id) =>
      savedAs(await answer(client.GET('/api/exercises/{id}', { params: { path: { id } } }))),
    create: async (body, uid) =>
      savedAs(await answer(client.POST('/api/exercises', { body, params: createdAs(uid) }))),
    replace: async (id, exercise, version, keepBefore) =>
      savedAs(
        await answer(
          client.PUT('/api/exercises/{id}', {
            params: { path: { id } },
            body: { version, exercise, keepBefore },
          }),
        ),
      ),
    restore: (id) => answer(client.POST('/api/exercises/{id}/restore', { params: { path: { id } } })),
    show: (body) => Promise.resolve({ body, shown: undefined }),
    called: (exercise) => exercise.name,
    // One that has no name yet is only tried out.
    keepable: (exercise) => exercise.name !== '',
    drafts,
    onSaved: () => void load().catch(() => {}),
  })

  async function load() {
    all.value = await answer(client.GET('/api/exercises'))
    loaded.value = true
  }

  async function remove(one: KeptExercise) {
    const document = documents.peek(one.id)
    if (document) await document.settled()
    const version = document?.version.value || one.version
    await answer(
      client.DELETE('/api/exercises/{id}', { params: { path: { id: one.id }, query: { version } } }),
    )
    documents.forget(one.id)
    await load()
  }

  async function bringBack(id: number) {
    await answer(client.POST('/api/exercises/{id}/restore', { params: { path: { id } } }))
    await load()
  }

  return { all, readable, damaged, loaded, documents: markRaw(documents), load, remove, bringBack }
})
