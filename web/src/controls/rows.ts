/** How many bars stand in a row of a tab or chart. */
export const barsInRow = 4

/** The first bar of the row that a bar is in, both from 1. */
export const firstOfRow = (bar: number) => Math.floor((bar - 1) / barsInRow) * barsInRow + 1
