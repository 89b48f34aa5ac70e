import type { Clock } from './transport'

/** A clock that a test moves on; what is due runs as it does. */
export function fakeClock(latency = 0) {
  let now = 0
  const timers: { every: number; next: number; run: () => void }[] = []
  const alarms: { time: number; run: () => void }[] = []
  const clock: Clock = {
    now: () => now,
    latency: () => latency,
    every(seconds, run) {
      const timer = { every: seconds, next: now + seconds, run }
      timers.push(timer)
      return () => void timers.splice(timers.indexOf(timer), 1)
    },
    at(time, run) {
      const alarm = { time, run }
      alarms.push(alarm)
      return () => {
        const at = alarms.indexOf(alarm)
        if (at >= 0) alarms.splice(at, 1)
      }
    },
  }
  /** Moves on by seconds; what is asked for meanwhile is answered in between. */
  async function advance(seconds: number) {
    const end = now + seconds
    for (;;) {
      const next = Math.min(...timers.map((t) => t.next), ...alarms.map((a) => a.time), Infinity)
      if (next > end) break
      now = Math.max(now, next)
      for (const alarm of alarms.filter((a) => a.time <= now)) {
        alarms.splice(alarms.indexOf(alarm), 1)
        alarm.run()
      }
      for (const timer of [...timers].filter((t) => t.next <= now)) {
        timer.next += timer.every
        timer.run()
      }
      await Promise.resolve()
    }
    now = end
  }
  /** The page stalls: time goes by and nothing runs. */
  const stall = (seconds: number) => void (now += seconds)
  return { clock, advance, stall, running: () => timers.length + alarms.length }
}
