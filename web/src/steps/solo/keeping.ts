import { shallowRef } from 'vue'
import { answer, client, type SoloEntry, type Revision } from '../../api/client'
import { useSolos } from '../../document/solos'
import { useTune } from '../../document/tune'
import type { SoloQuery } from './address'
import type { SoloWork } from './work'

/** Solos that are opened, copied, deleted and brought back, their versions and files. */
export function useKeeping(work: SoloWork, query: SoloQuery) {
  const tune = useTune()
  const solos = useSolos()
  const gone = shallowRef<{ id: number; name: string }>()

  async function attempt(doing: () => Promise<unknown>) {
    try {
      await doing()
    } catch (error) {
      work.tell(error)
    }
  }

  /** Opens another solo of the tune. */
  const open = (id: number) =>
    attempt(async () => {
      await work.take(id)
      await query.set({ id, chorus: undefined })
    })

  const duplicate = () =>
    attempt(async () => {
      await work.document.value?.settled()
      const copy = await answer(
        client.POST('/api/solos/{id}/duplicate', { params: { path: { id: work.id.value } } }),
      )
      await solos.list(tune.id)
      await work.take(copy.id)
      await query.set({ id: copy.id })
    })

  const remove = (entry?: SoloEntry) =>
    attempt(async () => {
      const one = work.document.value
      const id = entry?.id ?? work.id.value
      const isOpen = id === work.id.value && one !== undefined
      if (isOpen) await one.settled()
      const version = isOpen ? one.version.value : (entry?.version ?? 1)
      await answer(client.DELETE('/api/solos/{id}', { params: { path: { id }, query: { version } } }))
      gone.value = { id, name: entry?.name ?? one?.called ?? '' }
      solos.documents.forget(id)
      const left = (await solos.list(tune.id)).filter((e) => !e.damaged)
      if (!isOpen) return
      await query.set({ id: undefined, chorus: undefined })
      await work.take(left[0]?.id)
    })

  const undelete = () =>
    attempt(async () => {
      if (!gone.value) return
      const { id } = gone.value
      await answer(client.POST('/api/solos/{id}/restore', { params: { path: { id } } }))
      gone.value = undefined
      await solos.list(tune.id)
      await open(id)
    })

  const revisions = (id: number, signal: AbortSignal): Promise<Revision[]> =>
    answer(client.GET('/api/solos/{id}/revisions', { params: { path: { id } }, signal }))

  const restore = (revision: number) =>
    attempt(async () => {
      const id = work.id.value
      await work.document.value?.replaceBy(`restore version ${revision}`, async (version) =>
        solos.savedAs(
          await answer(
            client.POST('/api/solos/{id}/revisions/{revision}/restore', {
              params: { path: { id, revision } },
              body: { version },
            }),
          ),
        ),
      )
    })

  const label = (revision: number, text: string) =>
    attempt(() =>
      answer(
        client.PUT('/api/solos/{id}/revisions/{revision}/label', {
          params: { path: { id: work.id.value, revision } },
          body: { label: text },
        }),
      ),
    )

  /** The file is of what is saved, so what is on its way is waited for. */
  const takeAway = (format: string) =>
    attempt(async () => {
      await tune.settled()
      await work.document.value?.settled()
      const link = document.createElement('a')
      link.href = `/api/solos/${work.id.value}/export/${format}`
      link.download = ''
      link.click()
    })

  return { gone, open, duplicate, remove, undelete, revisions, restore, label, takeAway }
}

export type SoloKeeping = ReturnType<typeof useKeeping>
