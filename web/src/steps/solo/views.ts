import { answer, client, type Chorus, type ChorusEdit, type ChorusView, type Lick } from '../../api/client'
import { useTune } from '../../document/tune'

/** What the server says of choruses over the tune; what an edit has answered is not asked again. */
export function useChorusViews() {
  const tune = useTune()
  let known: { key: string; view: ChorusView } | undefined
  const keyOf = (of: Chorus) => JSON.stringify([of, tune.music, tune.hands])
  const note = (of: Chorus, view: ChorusView) => void (known = { key: keyOf(of), view })

  /** The chorus with one edit made; a block is rolled again from the licks. */
  const ask = (chorus: Chorus, edit?: ChorusEdit, licks?: Lick[], signal?: AbortSignal) =>
    answer(
      client.POST('/api/compute/solo/chorus', {
        body: { chart: tune.chart!, hands: tune.hands, chorus, edit, licks },
        signal,
      }),
    )
  /** The chorus as it is. */
  const read = (of: Chorus, signal?: AbortSignal) =>
    known?.key === keyOf(of) ? Promise.resolve(known.view) : ask(of, undefined, undefined, signal)
  return { note, ask, read }
}

export type ChorusViews = ReturnType<typeof useChorusViews>
