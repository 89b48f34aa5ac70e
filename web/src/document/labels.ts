import type { Chart } from '../api/client'
import type { ChartEdit } from './tune'

const names: Partial<Record<keyof Chart, string>> = {
  title: 'rename the tune',
  tags: 'change the tags',
  tempo: 'change the tempo',
  swing: 'change the swing',
  capo: 'move the capo',
  box: 'choose another box',
  imagining: 'imagined chords on or off',
}

/** What an edit of a tune does, in a few words: what undo would take back. */
export function labelOf({ set, ...edit }: ChartEdit): string {
  if (edit.tonic) return `transpose to ${edit.tonic}`
  if (edit.reread) return `re-read in ${edit.reread.tonic} ${edit.reread.mode}`
  if (edit.scheme) return `replace the bars: ${edit.scheme}`
  if (edit.feel) return `play it ${edit.feel}`
  if (edit.meter) return `meter ${edit.meter}`
  if (edit.write) return `${edit.write.imagined ? 'imagine over' : 'write'} bar ${edit.write.bar}`
  if (edit.split) return `split bar ${edit.split.bar}`
  if (edit.lengths) return `lengths in bar ${edit.lengths.bar}`
  if (edit.insert) return 'insert bars'
  if (edit.remove) return 'take bars out'
  if (edit.copy) return 'paste bars'
  if (edit.section) return `section at bar ${edit.section.bar}`
  if (edit.repeat) return 'repeat signs'
  if (edit.ending) return 'an ending'
  if (edit.setting)
    return `${edit.setting.key ? 'key' : edit.setting.meter ? 'meter' : 'feel'} at bar ${edit.setting.bar}`
  if (edit.signs || edit.jump) return 'signs that lead back'
  if (edit.pickup) return 'the bar before bar 1'
  if (edit.scale)
    return edit.scale.scale
      ? `${edit.scale.scale} over ${edit.scale.chord}`
      : `the usual scale of ${edit.scale.chord}`
  if (edit.turnaround) return edit.turnaround.name
  const changed = Object.keys(set ?? {}) as (keyof Chart)[]
  return (changed[0] && names[changed[0]]) || 'edit the tune'
}

/** Edits of the same value in quick succession are one gesture. */
export function gestureOf({ set, ...edit }: ChartEdit): string | undefined {
  const fields = Object.keys(set ?? {})
  if (Object.values(edit).some((value) => value !== undefined) || fields.length !== 1) return undefined
  return ['tempo', 'swing', 'capo'].includes(fields[0] ?? '') ? fields[0] : undefined
}
