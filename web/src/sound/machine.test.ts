import { describe, expect, test, vi } from 'vitest'
import type { Engine, Playback } from './engine'
import { createPlayer, type Source } from './machine'
import type { LoadedSamples } from './samples'
import type { Chunk, Listener } from './transport'

/** An engine that a test plays: what loads, what sounds, and when it is silent. */
function engine() {
  const log: string[] = []
  const loading: { done: () => void; fail: (error: Error) => void }[] = []
  let instant = true
  let listener: Listener | undefined
  let present: Chunk | undefined
  let sounding = 0
  let silence: (() => void)[] = []
  const loaded = { notes: new Map(), missing: [] } as LoadedSamples
  const fake: Engine = {
    unlock: () => void log.push('unlock'),
    load: () => {
      log.push('load')
      if (instant) return Promise.resolve(loaded)
      return new Promise((done, fail) => loading.push({ done: () => done(loaded), fail }))
    },
    play: (first, _, heard, speed): Playback => {
      listener = heard
      present = first
      sounding++
      log.push(`play ${first.performance.tempo} at ${speed}`)
      return {
        get present() {
          return present!
        },
        setSpeed: (to) => log.push(`speed ${to}`),
        heard: () => undefined,
        sent: () => undefined,
        askAnew: () => log.push('ask anew'),
        replace: (old, by) => log.push(`${old.performance.tempo} becomes ${by.performance.tempo}`),
        turnTo: (chunk, bar) => log.push(`turn to ${chunk.performance.tempo} after ${bar ?? 'this bar'}`),
        stop: () => {
          sounding--
          log.push('stop')
          return new Promise((done) => silence.push(done))
        },
      }
    },
    setMix: () => {},
  }
  return {
    ...{ fake, log, loading },
    slowly: () => (instant = false),
    heard: () => listener!,
    goOn: (chunk: Chunk) => (present = chunk),
    sounding: () => sounding,
    silent: async () => {
      for (const done of silence) done()
      silence = []
      await Promise.resolve()
    },
  }
}
/** Four bars at a tempo. */
const piece = (tempo: number): Chunk =>
  ({ performance: { tempo, beats: [1, 2, 3, 4].map((bar) => ({ bar })) } }) as unknown as Chunk
const inBar = (bar: number) => ({ tick: 0, bar, beat: 1, at: 0 })

function player(arrange: (tempo: number) => Promise<Chunk> = async (tempo) => piece(tempo)) {
  const e = engine()
  const told: string[] = []
  const machine = createPlayer(e.fake, (error) => told.push(String(error)))
  const source = (tempo: number): Source => ({
    first: () => arrange(tempo),
    after: async (_, skip) => (skip ? piece(tempo + 1) : undefined),
    loopChunk: async () => ({ ...piece(tempo + 2), loop: { from: 2, to: 3 } }),
    refreshed: async (_, ending) => piece(tempo + (ending ? 4 : 3)),
    endNext: () => void e.log.push('end next'),
  })
  return {
    ...machine,
    play: (tempo: number, who?: string) => machine.play(source(tempo), who),
    ...{ e, told },
  }
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
    p.e.heard().beat(inBar(3))
    p.e.heard().event(7)
    expect([p.bar.value, p.event.value, p.owner.value]).toEqual([3, 7, 'licks'])
  })

  test('the end leads to silence', async () => {
    const p = player()
    await p.play(100)
    p.e.heard().beat(inBar(3))
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
    first.beat(inBar(9))
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
    let arranged: (chunk: Chunk) => void = () => {}
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
      tempo === 1 ? new Promise<Chunk>((_, no) => (refuse = no)) : Promise.resolve(piece(tempo)),
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

describe('speed', () => {
  test('holds for what is played next', async () => {
    const p = player()
    p.setSpeed(50)
    await p.play(100)
    expect(p.e.log.at(-1)).toBe('play 100 at 0.5')
  })

  test('acts on what plays', async () => {
    const p = player()
    await p.play(100)
    p.setSpeed(80)
    expect(p.e.log.at(-1)).toBe('speed 0.8')
  })
})

describe('what plays', () => {
  test('while it is counted in is in no bar', async () => {
    const p = player()
    await p.play(100)
    p.e.heard().beat(inBar(0))
    expect(p.bar.value).toBeUndefined()
  })

  test('goes on with the next segment', async () => {
    const p = player()
    await p.play(100)
    await p.skip()
    expect(p.e.log.at(-1)).toBe('turn to 101 after this bar')
  })

  test('is played otherwise from where it is', async () => {
    const p = player()
    await p.play(100)
    await p.refresh()
    expect(p.e.log.at(-1)).toBe('100 becomes 103')
  })

  test('goes to looped bars at once, or after them where they sound', async () => {
    const p = player()
    await p.play(100)
    p.e.heard().beat(inBar(1))
    await p.reloop()
    p.e.heard().beat(inBar(2))
    await p.reloop()
    expect(p.e.log.slice(-2)).toEqual(['turn to 102 after this bar', 'turn to 102 after 3'])
  })

  test('ends well at the end of its chorus, and asked again at once', async () => {
    const p = player()
    await p.play(100)
    p.e.heard().beat(inBar(2))
    await p.finish()
    expect(p.finishing.value).toBe(true)
    expect(p.e.log.at(-1)).toBe('100 becomes 104')
    const stopped = p.finish()
    await p.e.silent()
    await stopped
    expect(p.state.value).toBe('silent')
  })

  test('over before its ending is there, the next one ends', async () => {
    const p = player()
    await p.play(100)
    p.e.heard().beat(inBar(2))
    const asked = p.finish()
    p.e.goOn(piece(90))
    await asked
    expect(p.e.log.slice(-2)).toEqual(['end next', 'ask anew'])
  })

  test('in its last bar ends well a chorus later', async () => {
    const p = player()
    await p.play(100)
    p.e.heard().beat(inBar(4))
    await p.finish()
    expect(p.e.log.slice(-2)).toEqual(['end next', 'ask anew'])
  })

  test('answered late says nothing to what plays since', async () => {
    const p = player()
    await p.play(100)
    const late = p.skip()
    await p.play(50)
    await late
    expect(p.e.log.filter((line) => line.startsWith('turn'))).toEqual([])
  })
})
