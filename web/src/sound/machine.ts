import { computed, ref, shallowRef } from 'vue'
import type { Engine, Playback } from './engine'
import type { BeatMark, ChordMark, Chunk } from './transport'

/** What a player is doing. */
export type PlayerState = 'silent' | 'loading' | 'playing' | 'stopping'

/** What is played, chunk by chunk. Nothing is where it is over. */
export interface Source {
  first(): Promise<Chunk | undefined>
  /** What comes after a chunk; asked to skip, what comes after its segment. */
  after(before: Chunk, skip: boolean): Promise<Chunk | undefined>
  /** The chunk to go to where bars have come to be looped, if that is another. */
  loopChunk(present: Chunk): Promise<Chunk | undefined>
  /** A chunk as it would be played now, with an ending where it is to be the last. */
  refreshed(chunk: Chunk, ending: boolean): Promise<Chunk | undefined>
  /** The next chunk is to be the last. */
  endNext(): void
}

/**
 * Plays one thing at a time. Whatever is asked last holds: what was still being loaded is
 * forgotten, what sounds is stopped first, and `stop` always leads to silence.
 */
export function createPlayer(engine: Engine, tell: (error: unknown) => void) {
  const state = ref<PlayerState>('silent')
  /** What is being heard: the chunk, its beat and chord, and the event of the line. */
  const chunk = shallowRef<Chunk>()
  const beat = shallowRef<BeatMark>()
  const chord = shallowRef<ChordMark>()
  const event = ref<number>()
  /** The bar that is heard; none while it is counted in. */
  const bar = computed(() => (beat.value && beat.value.bar > 0 ? beat.value.bar : undefined))
  /** Who asked for what is playing. */
  const owner = shallowRef<string>()
  /** In percent of the written tempo. */
  const speed = ref(100)
  /** It has been asked to end well. */
  const finishing = ref(false)
  let playback: Playback | undefined
  let source: Source | undefined
  let turn = 0
  let change = 0

  function silence() {
    chunk.value = undefined
    beat.value = undefined
    chord.value = undefined
    event.value = undefined
    finishing.value = false
    source = undefined
    const ending = playback
    playback = undefined
    return ending?.stop()
  }

  /** Plays something for someone; called while a key or the mouse is being pressed. */
  async function play(what: Source, who = '') {
    engine.unlock()
    const mine = ++turn
    void silence()
    state.value = 'loading'
    owner.value = who
    try {
      const [first] = await Promise.all([what.first(), engine.load()])
      if (mine !== turn) return
      if (!first) {
        state.value = 'silent'
        return
      }
      source = what
      const heard =
        <T>(run: (value: T) => void) =>
        (value: T) => {
          if (mine === turn) run(value)
        }
      playback = engine.play(
        first,
        (before) => what.after(before, false),
        {
          chunk: heard((it) => (chunk.value = it)),
          beat: heard((it) => (beat.value = it)),
          chord: heard((it) => (chord.value = it)),
          event: heard((it) => (event.value = it)),
          end: () => mine === turn && void stop(),
          failed: heard(tell),
        },
        speed.value / 100,
      )
      state.value = 'playing'
    } catch (error) {
      if (mine !== turn) return
      state.value = 'silent'
      tell(error)
    }
  }

  async function stop() {
    const mine = ++turn
    if (state.value === 'silent') return
    state.value = 'stopping'
    await silence()
    if (mine === turn) state.value = 'silent'
  }

  /** Does something with what the source answers, if that is still what plays. */
  async function ask(
    question: (source: Source, present: Chunk) => Promise<Chunk | undefined>,
    then: (playback: Playback, got: Chunk | undefined, present: Chunk) => void,
  ) {
    if (!source || !playback) return
    const mine = turn
    const latest = ++change
    const present = playback.present
    try {
      const got = await question(source, present)
      if (mine === turn && latest === change && playback) then(playback, got, present)
    } catch (error) {
      if (mine === turn) tell(error)
    }
  }

  /** Ends well: with an ending at the end of this chorus; asked again, at once. */
  function finish() {
    if (state.value !== 'playing' || finishing.value || !playback || !source) return stop()
    finishing.value = true
    const { present } = playback
    const from = source
    // In the last bar, or where the chorus is over before the answer is there, the next one ends.
    const endTheNext = (playing: Playback) => {
      from.endNext()
      playing.askAnew()
    }
    const lastBar = Math.max(...present.performance.beats.map((b) => b.bar))
    if (bar.value === lastBar) return endTheNext(playback)
    return ask(
      (_, at) => from.refreshed(at, true),
      (playing, got, at) => {
        if (!got) return void stop()
        if (playing.present === at) playing.replace(at, got)
        else endTheNext(playing)
      },
    )
  }

  /** Goes on with the next segment when this bar is over. */
  const skip = () =>
    ask(
      (from, at) => from.after(at, true),
      (playing, got) => (got ? playing.turnTo(got) : void stop()),
    )

  /** What is played is to be played otherwise from now on. */
  const refresh = () =>
    ask(
      (from, at) => from.refreshed(at, finishing.value),
      (playing, got, at) => {
        if (got && playing.present === at) playing.replace(at, got)
        else playing.askAnew()
      },
    )

  /** Other bars are looped from now on, or none. */
  const reloop = () =>
    ask(
      (from, at) => from.loopChunk(at),
      (playing, got, at) => {
        if (!got?.loop) return playing.askAnew()
        const inside = bar.value !== undefined && bar.value >= got.loop.from && bar.value <= got.loop.to
        // Where the bars sound already they are played to their end first.
        playing.turnTo(got, inside && !at.loop ? got.loop.to : undefined)
      },
    )

  function setSpeed(percent: number) {
    speed.value = percent
    playback?.setSpeed(percent / 100)
  }

  /** Where in the chunk that is heard: its tick now; nothing while nothing sounds. */
  const heard = () => playback?.heard()

  /** The same of what is sent to the sound device now. */
  const sent = () => playback?.sent()

  return {
    ...{ heard, sent },
    ...{ state, chunk, beat, chord, bar, event, owner, speed, finishing },
    ...{ play, stop, finish, skip, refresh, reloop, setSpeed },
  }
}
