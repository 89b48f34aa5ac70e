import { computed, ref } from 'vue'
import { useTune } from '../../document/tune'
import type { Selection } from './selection'

/** Bars that are copied, pasted, taken out, emptied and put in where the selection is. */
export function useRearranging(selection: Selection) {
  const tune = useTune()
  /** What was copied: bars of this chart, from 0. */
  const copied = ref<{ from: number; count: number }>()
  const range = computed(() => ({ bar: selection.first.value + 1, count: selection.size.value }))

  function copy() {
    if (range.value.count) copied.value = { from: selection.first.value, count: selection.size.value }
  }
  async function paste() {
    if (!copied.value) return
    const { from, count } = copied.value
    const to = Math.min(selection.first.value, selection.count.value)
    await tune.edit({ copy: { bar: from + 1, count, to: to + 1 } })
    copied.value = undefined
  }
  function remove() {
    if (range.value.count) void tune.edit({ remove: range.value })
  }
  function clear() {
    if (range.value.count) {
      const rests = Array.from({ length: range.value.count }, () => 'N.C.').join(' | ')
      void tune.edit({ write: { bar: range.value.bar, text: rests } })
    }
  }
  function insert() {
    void tune.edit({ insert: { bar: Math.min(selection.first.value, selection.count.value) + 1, count: 1 } })
  }
  return { copied, copy, paste, remove, clear, insert }
}
