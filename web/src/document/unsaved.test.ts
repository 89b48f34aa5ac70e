import { ref } from 'vue'
import { describe, expect, it } from 'vitest'
import type { SaveState } from './saver'
import { blockedElsewhere, isGone, noticeIsShown, wasEdited } from './unsaved'

const edited = (state: SaveState) => {
  const one = { state: ref(state), settled: () => Promise.resolve(false), stays: true }
  wasEdited(one)
  return one
}

describe('a document that cannot be saved', () => {
  it('is told wherever the player is, but where its own view tells it', () => {
    const all = (['conflict', 'gone', 'failed'] as const).map(edited)
    const saving = edited('saving')
    const told = () => blockedElsewhere().filter((one) => [...all, saving].some((mine) => mine === one))
    expect(told()).toEqual(all)
    const hide = noticeIsShown(all[0]!)
    const hideAgain = noticeIsShown(all[0]!)
    expect(told()).toEqual(all.slice(1))
    hide()
    expect(told()).toEqual(all.slice(1))
    hideAgain()
    expect(told()).toEqual(all)
    all[1]!.state.value = 'saved'
    expect(told()).toEqual([all[0], all[2]])
    for (const one of [...all, saving]) isGone(one)
    expect(told()).toEqual([])
  })
})
