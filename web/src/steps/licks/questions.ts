import { computed } from 'vue'
import type { KeptLick } from '../../api/client'
import { useView } from '../../address/view'
import { useTune } from '../../document/tune'
import type { LicksQuery } from './address'

/** What every question about a lick begins with: the tune, the hands, the lick, and where it is taken. */
export function useLickQuestion(lick: () => KeptLick | undefined, query: LicksQuery) {
  const tune = useTune()
  const view = useView()
  const asWritten = computed(() => !query.here.value)
  const about = computed(() => {
    const position = view.position.value?.id
    const from = lick()
    if (!tune.music || !from || !position) return undefined
    // As it is written the lick does not depend on where the hand is.
    return {
      ...{ chart: tune.music, hands: tune.hands, lick: from.lick, asWritten: asWritten.value },
      ...(asWritten.value ? {} : { position }),
    }
  })
  return { about, asWritten }
}

export type LickQuestion = ReturnType<typeof useLickQuestion>
