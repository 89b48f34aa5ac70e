import type { SessionBlock } from '../../api/client'

/** Blocks with one of them moved to another's place. */
export function moved(blocks: SessionBlock[], from: number, to: number): SessionBlock[] {
  const rest = blocks.filter((_, n) => n !== from)
  return [...rest.slice(0, to), blocks[from]!, ...rest.slice(to)]
}

/** The minutes of some blocks, breaks not counted. */
export const minutesOf = (blocks: SessionBlock[]) =>
  blocks.reduce((sum, b) => sum + (b.kind === 'break' ? 0 : b.minutes), 0)
