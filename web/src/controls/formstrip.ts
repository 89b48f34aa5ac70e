import { ref, shallowRef } from 'vue'

/** What is landed on where a chord arrives, for the form strip: by the tick of the chord's moment. */
export const landingsOnStrip = shallowRef<Map<number, { text: string; pinned: boolean }>>()

/**
 * What is heard of each chord of the chorus on screen when the band drops out, for the form
 * strip: by the tick of its moment; nothing while no chorus is looked at.
 */
export const impliedOnStrip = shallowRef<Map<number, { recognition: string; text: string }>>()

/** What the form strip shows: the chords of the bars, only where in the form one is, or nothing. */
export const stripShows = ref<'chords' | 'bars' | 'nothing'>('chords')
