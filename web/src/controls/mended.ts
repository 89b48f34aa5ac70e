/** The text with the word at fault replaced; `column` is a character of it, counted from 1. */
export function mended(text: string, column: number, symbol: string, by: string): string {
  let start = text.lastIndexOf(symbol, column - 1)
  if (start < 0) start = text.indexOf(symbol)
  return start < 0 ? text : text.slice(0, start) + by + text.slice(start + symbol.length)
}
