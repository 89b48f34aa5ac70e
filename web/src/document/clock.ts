/** How many minutes the clock of this browser is ahead of universal time. */
export const minutesAhead = (at = new Date()) => -at.getTimezoneOffset()

/** The time zone as the browser knows it. */
export const timeZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone

/** A time with the offset of this browser: 2026-03-01T19:00:00+01:00. */
export function localTime(at = new Date()) {
  const ahead = minutesAhead(at)
  const local = new Date(at.getTime() + ahead * 60_000).toISOString().slice(0, 19)
  const two = (n: number) => String(Math.floor(n)).padStart(2, '0')
  const sign = ahead < 0 ? '-' : '+'
  return `${local}${sign}${two(Math.abs(ahead) / 60)}:${two(Math.abs(ahead) % 60)}`
}
