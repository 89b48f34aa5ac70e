import { describe, expect, it } from 'vitest'
import script from '../../public/recorder.js?raw'

/** Runs the script of the recorder with a clock that says these frames, and returns what it hands on as one sound. */
function recorded(frames: number[], side = 0): { first: number; samples: number[] } {
  const pieces: { frame: number; samples: Float32Array }[] = []
  class Processor {
    port = { postMessage: (piece: { frame: number; samples: Float32Array }) => pieces.push(piece) }
  }
  type Recorder = { process(inputs: Float32Array[][]): boolean }
  let made: new (options: unknown) => Recorder
  const register = (_: string, kind: typeof made) => (made = kind)
  const clock = { frame: 0 }
  const run = new Function(
    'AudioWorkletProcessor',
    'registerProcessor',
    'sampleRate',
    'clock',
    script.replaceAll('currentFrame', 'clock.frame'),
  )
  run(Processor, register, 6400, clock)
  const recorder = new made!({ processorOptions: { side } })
  frames.forEach((frame, n) => {
    clock.frame = frame
    recorder.process([[new Float32Array(128).fill((n + 1) / 64), new Float32Array(128).fill((n + 1) / 128)]])
  })
  return {
    first: pieces[0]!.frame,
    samples: pieces.flatMap((piece) => [...piece.samples.filter((_, n) => n % 128 === 0)]),
  }
}

describe('what the recorder hands on', () => {
  const left = (...of: number[]) => of.map((n) => n / 64)
  it.each([
    ['one block after another', [1280, 1408, 1536, 1664], left(1, 2, 3, 4)],
    ['a block that was left out', [1280, 1408, 1664], left(1, 2, 0, 3)],
    ['a clock that stood still and caught up', [1280, 1280, 1280, 1664, 1792], left(1, 2, 3, 4, 5)],
    ['both', [1280, 1280, 1664], left(1, 2, 0, 3)],
  ])('%s', (_, frames, want) => {
    expect(recorded(frames, 1)).toEqual({ first: 1280, samples: want })
  })

  it('takes the side that was chosen, or the middle of both', () => {
    expect(recorded([0], 1).samples).toEqual([1 / 64])
    expect(recorded([0], 2).samples).toEqual([1 / 128])
    expect(recorded([0], 0).samples).toEqual([3 / 256])
  })
})
