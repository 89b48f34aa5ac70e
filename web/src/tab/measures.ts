/** How high a line of tab stands, and where in it its strings are, in the drawing's units. */
export function rowMeasures(dense: boolean) {
  const top = dense ? 44 : 46
  const gap = dense ? 19 : 17
  const y = (string: number) => top + (string - 1) * gap
  return { top, y, height: (strings: number) => y(strings) + (dense ? 34 : 46) }
}
