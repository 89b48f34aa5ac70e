/** A take as a dot of the picture: where it stands, and what it says. */
export interface WeekDot {
  x: number
  y: number
  text: string
}

/**
 * The dots of takes over time, in a picture of a size: the earliest at the left, the lowest value at the bottom.
 * Takes of one moment stand in the middle.
 */
export function weekDots(
  takes: { began: string; value: number; text: string }[],
  size: { width: number; height: number; margin: number },
  most = Math.max(...takes.map((take) => take.value)),
): WeekDot[] {
  const sorted = takes.toSorted((a, b) => a.began.localeCompare(b.began))
  const times = sorted.map((take) => Date.parse(take.began))
  const from = times[0] ?? 0
  const span = (times.at(-1) ?? 0) - from
  const inside = { width: size.width - 2 * size.margin, height: size.height - 2 * size.margin }
  return sorted.map((take, n) => ({
    x: size.margin + inside.width * (span ? (times[n]! - from) / span : 0.5),
    y: size.height - size.margin - inside.height * (most > 0 ? take.value / most : 0),
    text: take.text,
  }))
}
