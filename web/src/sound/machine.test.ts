import { describe, expect, test, vi } from 'vitest'
import type { Performance } from '../api/client'
import type { Engine, Playback } from './engine'
import { createPlayer } from './machine'
import type { Listener } from './transport'

/** An engine that a test plays: what loads, what sounds, and when it is silent. */
function engine() {
  const log: string[] = []
  const loading: { done: () => void; fail: (error: Error) => void }[] = []
  let instant = true
  let listener: Listener | undefined
  let sounding = 0
  let silence: (() => void)[] = []
  const fake: Engine = {
    unlock: () => void log.push('unlock'),
    load: () => {
      log.push('load')
      if (instant) return Promise.resolve()
      return new Promise<void>((done, fail) => loading.push({ done, fail }))
    },
    play: (performance, heard, speed, loop): Playback => {
      listener = heard
      sounding++
      log.push(`play ${performance.tempo} at ${speed}${loop ? ' in a loop' : ''}`)
      return {
        setSpeed: (to) => log.push(`speed ${to}`),
        setLoop: (on) => log.push(`loop ${on}`),
        stop: () => {
          sounding--
          log.push('stop')
          return new Promise((done) => silence.push(done))
        },
      }
    },
    render: () => Promise.reject(new Error('not here')),
  }
  return {
    ...{ fake, log, loading },
    slowly: () => (instant = false),
    heard: () => listener!,
    sounding: () => sounding,
    silent: async () => {
      for (const done of silence) done()
      silence = []
      await Promise.resolve()
    },
  }
}
const piece = (tempo: number) => ({ tempo }) as Performance

function player(arrange: (tempo: number) => Promise<Performance> = async (tempo) => piece(tempo)) {
  const e = engine()
  const told: string[] = []
  const machine = createPlayer(e.fake, arrange, (error) => told.push(String(error)))
  return { ...machine, ...{ e, told } }
}
const soon = () => new Promise((done) => setTimeout(done))

describe('playing', () => {
  test('sound is unlocked at once, before anything is waited for', () => {
    const p = player()
    void p.play(100)
    expect(p.e.log[0]).toBe('unlock')
    expect(p.state.value).toBe('loading')
  })

  test('it loads, then plays', async () => {
    const p = player()
    await p.play(100)
    expect(p.state.value).toBe('playing')
    expect(p.e.log).toEqual(['unlock', 'load', 'play 100 at 1'])
  })

  test('what is heard is told', async () => {
    const p = player()
    await p.play(100, 'licks')
    p.e.heard().bar(3)
    p.e.heard().event(7)
    expect([p.bar.value, p.event.value, p.owner.value]).toEqual([3, 7, 'licks'])
  })

  test('the end leads to silence', async () => {
    const p = player()
    await p.play(100)
    p.e.heard().bar(3)
    p.e.heard().end()
    expect(p.bar.value).toBeUndefined()
    expect(p.state.value).toBe('stopping')
    await p.e.silent()
    expect(p.state.value).toBe('silent')
  })

  test('something else played takes the place of what plays', async () => {
    const p = player()
    await p.play(100)
    await p.play(90)
    expect(p.e.sounding()).toBe(1)
    expect(p.state.value).toBe('playing')
  })

  test('what the first one still tells is not heard of the second', async () => {
    const p = player()
    await p.play(100)
    const first = p.e.heard()
    await p.play(90)
    first.bar(9)
    first.end()
    expect(p.bar.value).toBeUndefined()
    expect(p.state.value).toBe('playing')
  })
})

describe('stopping', () => {
  test('while it loads means that it never plays', async () => {
    const p = player()
    p.e.slowly()
    const playing = p.play(100)
    await soon()
    void p.stop()
    p.e.loading[0]!.done()
    await playing
    expect(p.e.log).not.toContain('play 100 at 1')
    expect(p.state.value).toBe('silent')
  })

  test('while the core arranges means that it never plays', async () => {
    let arranged: (performance: Performance) => void = () => {}
    const p = player(() => new Promise((done) => (arranged = done)))
    const playing = p.play(100)
    await p.stop()
    arranged(piece(100))
    await playing
    expect(p.e.sounding()).toBe(0)
    expect(p.state.value).toBe('silent')
  })

  test('goes by way of stopping to silence', async () => {
    const p = player()
    await p.play(100)
    const stopped = p.stop()
    expect(p.state.value).toBe('stopping')
    await p.e.silent()
    await stopped
    expect(p.state.value).toBe('silent')
  })

  test('in silence does nothing', async () => {
    const p = player()
    await p.stop()
    expect(p.state.value).toBe('silent')
    expect(p.e.log).toEqual([])
  })

  test('and playing again at once plays', async () => {
    const p = player()
    await p.play(100)
    void p.stop()
    await p.play(90)
    await p.e.silent()
    expect(p.state.value).toBe('playing')
    expect(p.e.sounding()).toBe(1)
  })
})

describe('what is refused', () => {
  test('is told, and nothing sounds', async () => {
    const p = player(() => Promise.reject(new Error('no such bar')))
    await p.play(100)
    expect(p.told).toEqual(['Error: no such bar'])
    expect(p.state.value).toBe('silent')
  })

  test('leaves nothing sounding of what played before', async () => {
    const arrange = vi.fn(async (tempo: number) => piece(tempo))
    const p = player(arrange)
    await p.play(100)
    arrange.mockRejectedValueOnce(new Error('no'))
    await p.play(90)
    expect(p.e.sounding()).toBe(0)
    expect(p.state.value).toBe('silent')
    await p.play(80)
    expect(p.e.sounding()).toBe(1)
  })

  test('any number of times leaves at most one sounding', async () => {
    const arrange = vi.fn(async (tempo: number) => piece(tempo))
    const p = player(arrange)
    for (let n = 0; n < 5; n++) {
      arrange.mockRejectedValueOnce(new Error('no'))
      await p.play(1)
      await p.play(2)
    }
    expect(p.e.sounding()).toBe(1)
  })

  test('sounds that failed to load are loaded the next time', async () => {
    const p = player()
    p.e.slowly()
    const playing = p.play(100)
    await soon()
    p.e.loading[0]!.fail(new Error('offline'))
    await playing
    expect(p.told).toEqual(['Error: offline'])
    const again = p.play(100)
    await soon()
    p.e.loading[1]!.done()
    await again
    expect(p.state.value).toBe('playing')
  })

  test('late says nothing of what was asked since', async () => {
    let refuse: (error: Error) => void = () => {}
    const arrange = vi.fn((tempo: number) =>
      tempo === 1 ? new Promise<Performance>((_, no) => (refuse = no)) : Promise.resolve(piece(tempo)),
    )
    const p = player(arrange)
    const first = p.play(1)
    await p.play(2)
    refuse(new Error('late'))
    await first
    expect(p.told).toEqual([])
    expect(p.state.value).toBe('playing')
  })
})

describe('speed and loop', () => {
  test('hold for what is played next', async () => {
    const p = player()
    p.setSpeed(50)
    p.setLoop(true)
    await p.play(100)
    expect(p.e.log.at(-1)).toBe('play 100 at 0.5 in a loop')
  })

  test('act on what plays', async () => {
    const p = player()
    await p.play(100)
    p.setSpeed(80)
    p.setLoop(true)
    expect(p.e.log.slice(-2)).toEqual(['speed 0.8', 'loop true'])
  })

  test('changed in silence they disturb nothing', () => {
    const p = player()
    p.setSpeed(70)
    p.setLoop(true)
    expect(p.state.value).toBe('silent')
    expect([p.speed.value, p.loop.value]).toEqual([70, true])
  })
})
