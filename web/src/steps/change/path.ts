import { computed, onBeforeUnmount, watch } from 'vue'
import { answer, client, type Place } from '../../api/client'
import { placesText, readPlaces } from '../../address/query'
import { landingsOnStrip } from '../../controls/formstrip'
import { samePlace } from '../../neck/geometry'
import { placeKey, toneMark, type Arrow, type Mark } from '../../neck/marks'
import { remembered, useAnswer } from '../../api/ask'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import type { ChangeWork } from './change'

interface Pin extends Place {
  change: number
}

/** The target path by every strategy, with the landings that are pinned: the pins are in the address. */
export function usePath(work: ChangeWork) {
  const tune = useTune()
  const view = useView()
  const { bench, about, shown, strategy, query } = work

  const pins = computed<Pin[]>(() =>
    query.pins.value.split(' ').flatMap((one) => {
      const [tick, place] = one.split('@')
      const at = readPlaces(place ?? '')[0]
      const change = Number(tick)
      return at && tick && Number.isInteger(change) ? [{ change, ...at }] : []
    }),
  )
  const keep = (all: Pin[]) => query.set({ pins: all.map((p) => `${p.change}@${placesText([p])}`).join(' ') })
  function pin({ string, fret }: Place) {
    const change = view.change.value?.tick
    if (change === undefined) return
    void keep([...pins.value.filter((p) => p.change !== change), { change, string, fret }])
  }
  const unpin = (tick: number) => keep(pins.value.filter((p) => p.change !== tick))
  const clear = () => keep([])

  const { answer: planned, refusal } = useAnswer(
    () => {
      if (bench.value !== 'path' || !about.value) return undefined
      const { chart, hands, position } = about.value
      return { chart, hands, position, pins: pins.value }
    },
    remembered((body, signal) => answer(client.POST('/api/compute/change/path', { body, signal }))),
  )
  const paths = computed(() => planned.value?.paths ?? [])
  const landings = computed(() => paths.value.find((p) => p.strategy === strategy.value)?.landings ?? [])

  watch(
    landings,
    (all) => {
      const chorus = Math.max(tune.read?.ticks ?? 1, 1)
      const entries = all.map((l) => {
        const entry = { text: `${l.degree} ${l.note}`, pinned: l.pinned }
        return [l.change % chorus, entry] as const
      })
      landingsOnStrip.value = all.length ? new Map(entries) : undefined
    },
    { immediate: true },
  )
  onBeforeUnmount(() => (landingsOnStrip.value = undefined))

  /** The landings on the neck, this change's filled; its other tones as ghosts, to be pinned. */
  const marks = computed<Mark[]>(() => {
    const now = landings.value.find((l) => l.change === shown.value?.tick)
    const landed = new Map<string, Mark & { times: number }>()
    for (const l of landings.value) {
      const before = landed.get(placeKey(l))
      const here = now !== undefined && samePlace(l, now)
      const times = (before?.times ?? 0) + 1
      const spoken = `bar ${l.bar}, ${l.degree} of ${l.chord}`
      landed.set(placeKey(l), {
        ...{ string: l.string, fret: l.fret, root: false, class: 'chordTone', times, small: `×${times}` },
        form: here ? 'arriving' : 'leaving',
        text: here ? now.degree : l.degree,
        spoken: before
          ? `${before.spoken}; ${spoken}`
          : `landing on ${l.note}, string ${l.string}, ${l.fret ? `fret ${l.fret}` : 'open'}: ${spoken}`,
        chosen: here,
      })
    }
    const others = (shown.value?.to ?? [])
      .filter((tone) => !landed.has(placeKey(tone)))
      .map((tone) => ({
        ...{ ...toneMark(tone, 'ghost'), root: false, small: undefined },
        spoken: `pin ${tone.spoken}`,
      }))
    return [...landed.values(), ...others]
  })

  /** The thread from landing to landing, the way into this change strong. */
  const arrows = computed<Arrow[]>(() => {
    const drawn = new Map<string, Arrow>()
    landings.value.forEach((to, n, all) => {
      const from = all[n - 1]
      if (!from || samePlace(from, to)) return
      const strong = to.change === shown.value?.tick
      const key = placesText([from, to])
      if (!strong && drawn.has(key)) return
      drawn.set(key, { from, to, text: '', spoken: to.text, strong, faint: !strong })
    })
    return [...drawn.values()]
  })

  return { paths, refusal, pins, pin, unpin, clear, marks, arrows }
}
