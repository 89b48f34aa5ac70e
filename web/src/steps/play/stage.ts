import { computed, ref, shallowRef, watch, watchEffect } from 'vue'
import { useAnswer } from '../../api/ask'
import { answer, client, type NeckMap, type Pass, type PlacedTone } from '../../api/client'
import { useBand } from '../../document/band'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import { boxMarks, toneMark, type Mark } from '../../neck/marks'
import { samePlace } from '../../neck/geometry'
import { usePlayer } from '../../sound/player'
import { chordAt, nextChord, type NextChord } from './next'

/** How many beats before a change the landing is shown. */
const beatsAhead = 4

/**
 * What the stage shows: the chord that sounds and the next one, the landing into it, and the
 * neck of the position. While nothing sounds it shows the chord that was picked, as the
 * routine would begin.
 */
export function useStage() {
  const tune = useTune()
  const view = useView()
  const player = usePlayer()
  const band = useBand()
  band.needRoutines()

  const { answer: first, refusal } = useAnswer(
    () => {
      if (player.tuneSounds || !band.ready || !band.chosen || !tune.music) return undefined
      return player.passRequest()
    },
    async (body, signal) => answer(client.POST('/api/compute/band/pass', { body, signal })),
  )
  /** The pass that sounds, or the one that would. */
  const pass = shallowRef<Pass>()
  watch(
    [() => (player.tuneSounds ? player.chunk?.pass : undefined), first],
    ([sounds, idle]) => {
      const now = sounds ?? (player.tuneSounds ? undefined : idle)
      if (now && !now.finished) pass.value = now
    },
    { immediate: true },
  )

  const spans = computed(() => pass.value?.stage ?? [])
  /** Which of the pass's chords sounds, or is picked. */
  const index = computed(() => {
    if (player.tuneSounds && player.beat && pass.value) return chordAt(pass.value, player.beat.tick)
    const tick = view.picked.value?.tick ?? 0
    return Math.max(
      spans.value.findLastIndex((span) => span.at <= tick),
      0,
    )
  })
  const chord = computed(() => spans.value[index.value])
  /** Where the hand stands under that chord: in another place where the key is another. */
  const handIndex = computed(() => {
    const tick = chord.value?.at ?? 0
    return Math.max(pass.value?.hand.findLastIndex((h) => h.tick <= tick) ?? 0, 0)
  })
  const hand = computed(() => pass.value?.hand[handIndex.value])
  /** Where it goes next. */
  const nextHand = computed(() => pass.value?.hand[handIndex.value + 1])

  // The map of the tune in the key that sounds; those that were drawn are kept.
  const drawn = new Map<string, NeckMap>()
  const map = shallowRef<NeckMap>()
  const { answer: asked, refusal: mapRefusal } = useAnswer(
    () => {
      const chart = pass.value?.chart
      if (!chart) return undefined
      const body = {
        ...{ chart: { ...chart, title: 'tune', tempo: 100 }, hands: tune.hands },
        ...{ at: hand.value?.tick ?? 0 },
      }
      const key = JSON.stringify(body)
      const known = drawn.get(key)
      if (known) map.value = known
      return { body, key }
    },
    async ({ body, key }, signal) => {
      const got = drawn.get(key) ?? (await answer(client.POST('/api/compute/chart/map', { body, signal })))
      drawn.set(key, got)
      return got
    },
  )
  watch(asked, (now) => now && (map.value = now))

  /** The tune whose stage is drawn whole: from then on nothing below it moves any more. */
  const drawnTune = ref(0)
  watchEffect(() => {
    if (refusal.value || (pass.value && (map.value || mapRefusal.value))) drawnTune.value = tune.id
  })
  const ready = computed(() => drawnTune.value === tune.id)

  const next = computed<NextChord | undefined>(() =>
    pass.value ? nextChord(pass.value, index.value, player.tuneSounds ? player.beat : undefined) : undefined,
  )
  const landing = computed(() => next.value?.landing)
  const near = computed(() => !player.tuneSounds || (next.value?.beats ?? Infinity) <= beatsAhead)

  const position = computed(() => map.value?.positions.find((p) => p.id === hand.value?.position))
  const shape = computed(() => position.value?.shapes.find((s) => s.chord === chord.value?.chord))

  /** What is shown: what the segment says, else what the player has chosen. */
  const shown = computed(() => pass.value?.view || band.band.view || 'tones')

  // The scale of the chord is only asked for where it is shown.
  const { answer: scale } = useAnswer(
    () => {
      const wanted = shown.value === 'scale' || shown.value === 'all'
      if (!wanted || !pass.value || !chord.value || !position.value) return undefined
      return {
        ...{ chart: { ...pass.value.chart, title: 'tune', tempo: 100 }, hands: tune.hands },
        ...{ chord: chord.value.chord, position: position.value.id, at: chord.value.at },
      }
    },
    (body, signal) => answer(client.POST('/api/compute/chord', { body, signal })),
  )
  const scaleNotes = computed<PlacedTone[]>(() =>
    scale.value?.shape.chord === chord.value?.chord ? (scale.value?.chordScale.notes ?? []) : [],
  )

  const noteMarks = computed<Mark[]>(() => {
    const tones = (shape.value?.tones ?? []).map((tone) => ({ ...toneMark(tone, 'tone'), small: undefined }))
    switch (shown.value) {
      case 'tones':
        return [...tones, ...boxMarks(shape.value?.box ?? [], tones)]
      case 'scale':
        return [...tones, ...boxMarks(scaleNotes.value, tones)]
      case 'all': {
        const both = [...tones, ...boxMarks(scaleNotes.value, tones)]
        return [...both, ...boxMarks(shape.value?.box ?? [], both)]
      }
      case 'roots':
        return tones.filter((mark) => mark.root)
    }
    return []
  })
  /** The landing stands over the rest, in the colour of what comes. */
  const neckMarks = computed<Mark[]>(() => {
    const to = landing.value
    const hidden = ['names', 'form', 'nothing'].includes(shown.value)
    if (!to || !near.value || hidden) return noteMarks.value
    const mark: Mark = {
      ...{ string: to.string, fret: to.fret, form: 'arriving', text: to.degree },
      ...{
        root: to.degree === 'R',
        class: 'chordTone',
        spoken: `land on ${to.note}, the ${to.degree} of ${to.chord}, string ${to.string}, ${to.fret ? `fret ${to.fret}` : 'open'}`,
      },
    }
    return [...noteMarks.value.filter((one) => !samePlace(one, to)), mark]
  })
  const showsNeck = computed(() => !['names', 'form', 'nothing'].includes(shown.value))

  return {
    pass,
    map,
    hand,
    nextHand,
    chord,
    next,
    landing,
    near,
    position,
    shown,
    neckMarks,
    showsNeck,
    ready,
    refusal,
  }
}
