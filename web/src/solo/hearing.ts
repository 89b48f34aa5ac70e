import { shallowRef } from 'vue'

/**
 * What is heard of each chord of the chorus on screen when the band drops out, by the tick
 * of its moment, for the form strip; nothing while no chorus is looked at.
 */
export const hearing = shallowRef<Map<number, { hearing: string; says: string }>>()
