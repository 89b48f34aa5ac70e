import type { Ref } from 'vue'
import { useView } from '../../address/view'
import type { KeptLick } from '../../api/client'
import { useTune } from '../../document/tune'
import { samePlace } from '../../neck/geometry'
import type { Finding } from './finding'
import type { LineWork } from './line'

/** The one so many further on among all, round the end; the first where none is chosen. */
export function nextOf<T>(all: readonly T[], here: T | undefined, by: number): T | undefined {
  const index = here === undefined ? -1 : all.indexOf(here)
  return all[(index + by + all.length) % all.length]
}

/** Walking with keys: from lick to lick, target to target, approach to approach. */
export function useWalking(
  lick: Ref<KeptLick | undefined>,
  finding: Finding,
  line: LineWork,
  choose: (one: KeptLick) => unknown,
) {
  const tune = useTune()
  const view = useView()
  function licks(by: number) {
    const all = finding.shown.value.map((one) => one.lick)
    const here = all.find((one) => one.id === lick.value?.id)
    const next = nextOf(all, here, by)
    if (next) void choose(next)
  }
  function targets() {
    const all = line.targets.value
    const here = all.find((tone) => view.target.value && samePlace(tone, view.target.value))
    // Behind the last target comes the one that the server proposes.
    const next = here && here === all.at(-1) ? undefined : nextOf(all, here, 1)
    void view.set({ target: next && { string: next.string, fret: next.fret } })
  }
  const approaches = () =>
    void view.set({ approach: nextOf(tune.choices?.approaches ?? [], line.approach.value, 1) })
  const subdivisions = () =>
    void view.set({ sub: nextOf(line.subdivisions.value, line.subdivision.value, 1) })
  return { licks, targets, approaches, subdivisions }
}
