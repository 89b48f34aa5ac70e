import { signs } from './spelling'

/** What can be chosen from a pill, and what it is in a line, shown in the list. */
export interface PillOption<Value extends string> {
  value: Value
  text: string
  about?: string
  /** It is somebody's own name for a thing, and shown as it is. */
  ownName?: boolean
}

export const pillText = (option: { text: string; ownName?: boolean }) =>
  option.ownName ? option.text : signs(option.text)
