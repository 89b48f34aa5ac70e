import { signs } from '../controls/spelling'
import type { WrittenLick } from '../api/client'

/** Where the cursor of the editor is, and what is there, for who does not see it. */
export function spokenPlace(written: WrittenLick, tick: number, string: number): string {
  const { barTicks, beatTicks, start, events } = written.tab
  const into = tick + start
  const bar = Math.floor(into / barTicks) + 1 - Math.round(start / barTicks)
  const beat = Math.floor((((into % barTicks) + barTicks) % barTicks) / beatTicks) + 1
  const off = (((into % beatTicks) + beatTicks) % beatTicks) / beatTicks
  const between = off === 0 ? '' : ` and ${fraction(off)}`
  const here = events.find((e) => e.tick === tick && e.string === string)
  const others = events.filter((e) => e.tick === tick && e.string !== string).length
  const also = others ? `, ${others} on other strings` : ''
  const where = `string ${string}, ${bar < 1 ? 'pickup' : `bar ${bar}`} beat ${beat}${between}`
  return `${where}, ${here ? signs(here.spoken) : 'empty'}${also}`
}

/** A part of a beat as it is read aloud. */
function fraction(part: number): string {
  for (const [of, name] of [
    [2, 'a half'],
    [3, 'a third'],
    [4, 'a quarter'],
    [6, 'a sixth'],
    [8, 'an eighth'],
  ] as const) {
    const count = Math.round(part * of)
    if (Math.abs(part * of - count) < 0.01) return count === 1 ? name : `${count} ${name.split(' ')[1]}s`
  }
  return `${Math.round(part * 100)} hundredths`
}
