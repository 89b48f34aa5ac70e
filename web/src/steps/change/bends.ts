import { computed } from 'vue'
import { answer, client, type Place } from '../../api/client'
import { samePlace } from '../../neck/geometry'
import { toneMark, type Mark } from '../../neck/marks'
import { remembered, useAnswer } from '../../api/ask'
import { useView } from '../../address/view'
import type { ChangeWork } from './change'

/** Bends by their half steps, as players say them: in whole steps. */
export const bends = ['', '½', '1', '1½']

/** The function table of a few fretted notes: the small box, or those in the address. */
export function useBends(work: ChangeWork) {
  const view = useView()
  const { bench, about, shown, query } = work

  const own = query.places
  const { answer: functions, refusal } = useAnswer(
    () => {
      if (bench.value !== 'bends' || !about.value) return undefined
      const { chart, hands, position } = about.value
      return { chart, hands, position, places: own.value, subdivision: view.subdivision.value }
    },
    remembered((body, signal) => answer(client.POST('/api/compute/change/functions', { body, signal }))),
  )

  /** Takes a place into the set, or out of it. */
  function toggle(place: Place) {
    const now = functions.value?.rows ?? own.value
    const rest = now.filter((p) => !samePlace(p, place))
    const next = rest.length < now.length ? rest : [...now, place]
    void query.set({ places: next.map(({ string, fret }) => ({ string, fret })) })
  }

  /** The notes as they are to be played over the chord under work, its own tones as ghosts. */
  const marks = computed<Mark[]>(() => {
    const over = functions.value?.chords.indexOf(shown.value?.leaving.chord ?? '') ?? -1
    const rows = (functions.value?.rows ?? []).map((row): Mark => {
      const f = row.functions[over]
      return {
        ...{ string: row.string, fret: row.fret, form: 'tone', root: false },
        text: f?.bent[f.bend]?.degree ?? row.note,
        small: f?.bend ? `↑${bends[f.bend]}` : f?.vibrato ? '~' : undefined,
        class: f?.bent[f.bend]?.class ?? '',
        spoken: `${row.note}, string ${row.string}, ${row.fret ? `fret ${row.fret}` : 'open'}: ${f?.text ?? ''}`,
      }
    })
    const ghosts = (shown.value?.from ?? [])
      .filter((tone) => !rows.some((r) => samePlace(r, tone)))
      .map((tone) => ({ ...toneMark(tone, 'ghost'), root: false, small: undefined }))
    return [...rows, ...ghosts]
  })

  return { own, functions, refusal, toggle, marks }
}
