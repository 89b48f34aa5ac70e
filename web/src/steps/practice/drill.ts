import { computed, ref, shallowRef, watch } from 'vue'
import {
  answer,
  client,
  type AnswerMark,
  type CardFacts,
  type Deck,
  type GivenPart,
  type KeptReview,
  type Place,
  type Question,
} from '../../api/client'
import { minutesAhead } from '../../document/clock'
import { useTune } from '../../document/tune'
import { newUid } from '../../document/uid'

/** What cards are drawn from, and which. */
export interface DrillChoice {
  chart?: number
  everyKey?: boolean
  kind?: string
  /** These cards and no others. */
  cards?: string[]
}

/** Cards asked one after the other: the question, what was answered so far, and how it was marked. */
export function useDrill(choice: () => DrillChoice | undefined, strategy: () => string | undefined) {
  const tune = useTune()
  const deck = shallowRef<Deck>()
  const cards = shallowRef<CardFacts[]>([])
  const index = ref(0)
  const question = shallowRef<Question>()
  const given = ref<GivenPart[]>([])
  const mark = shallowRef<AnswerMark>()
  const kept = shallowRef<KeptReview>()
  const hints = ref(0)
  const problem = ref('')
  const busy = ref(false)
  /** How many were right and asked since the drill was begun. */
  const score = ref({ right: 0, of: 0 })
  let seed = 0
  let shownAt = 0

  const card = computed(() => cards.value[index.value])
  const request = (of: CardFacts) => ({
    ...{ hands: tune.hands, card: of.id, seed, strategy: strategy() || undefined },
    ...(of.kind === 'where must it begin' && tune.chart && { meter: tune.chart.meter }),
  })
  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      busy.value = true
      problem.value = ''
      return await work()
    } catch (error) {
      problem.value = error instanceof Error ? error.message : String(error)
      return undefined
    } finally {
      busy.value = false
    }
  }

  async function load() {
    const wanted = choice()
    if (!wanted) return
    const query = { ...wanted, offset: minutesAhead(), count: 60 }
    const got = await attempt(() => answer(client.GET('/api/practice/deck', { params: { query } })))
    if (!got) return
    deck.value = got
    cards.value = got.cards
    score.value = { right: 0, of: 0 }
    await ask(0)
  }
  /** Asks one of the cards; what was asked before stays until its question is there. */
  async function ask(to: number) {
    const of = cards.value[to]
    seed = Math.floor(Math.random() * 2 ** 32)
    const asked = of
      ? await attempt(() => answer(client.POST('/api/compute/practice/question', { body: request(of) })))
      : undefined
    if (of !== cards.value[to]) return
    index.value = to
    question.value = asked
    mark.value = undefined
    kept.value = undefined
    given.value = []
    hints.value = 0
    shownAt = performance.now()
  }
  watch(choice, (now, before) => JSON.stringify(now) !== JSON.stringify(before) && void load(), {
    immediate: true,
  })

  /** Gives a part of the answer. What needs no more is marked at once. */
  async function give(part: GivenPart) {
    const q = question.value
    if (!q || mark.value || q.form === 'chosen') return
    if (q.form === 'written') {
      const cell = q.cells[given.value.length]
      if (!part.note || !cell) return
      part = { place: cell, note: part.note }
    } else if (part.place && q.form === 'all of them') {
      // A place that is given again is taken away.
      const same = (one: GivenPart) =>
        one.place?.string === part.place?.string && one.place?.fret === part.place?.fret
      if (given.value.some(same)) {
        given.value = given.value.filter((one) => !same(one))
        return
      }
    }
    given.value = [...given.value, part]
    const enough = q.form === 'written' ? q.cells.length : q.form === 'one of them' ? 1 : q.parts
    if (enough > 0 && given.value.length >= enough) await check()
  }
  /** Names the answer to the question that is shown: sent again after a lost reply it counts once. */
  let answerUid = newUid()
  watch(question, () => (answerUid = newUid()))
  const takeAway = () => (given.value = given.value.slice(0, -1))

  /** Marks the answer; what is marked is kept, and the card scheduled. */
  async function check(choice?: string) {
    const of = card.value
    if (!of || !question.value || mark.value || busy.value) return
    const tookMs = Math.min(Math.round(performance.now() - shownAt), 3_600_000)
    const body = {
      ...{ ...request(of), answer: { given: given.value, ...(choice && { choice }) } },
      ...{ hints: hints.value, tookMs, offsetMinutes: minutesAhead(), uid: answerUid },
    }
    const got = await attempt(() => answer(client.POST('/api/practice/reviews', { body })))
    if (!got) return
    kept.value = got
    mark.value = got.mark
    score.value = { right: score.value.right + (got.mark.right ? 1 : 0), of: score.value.of + 1 }
  }
  /** A slip of the finger: the answer does not count, and the question is asked again. */
  async function takeBack() {
    const last = kept.value
    if (!last) return
    const path = { id: last.id }
    await attempt(() => answer(client.POST('/api/practice/reviews/{id}/takeback', { params: { path } })))
    if (problem.value) return
    score.value = { right: score.value.right - (last.mark.right ? 1 : 0), of: score.value.of - 1 }
    mark.value = undefined
    kept.value = undefined
    given.value = []
    shownAt = performance.now()
  }
  const hint = () => question.value && !mark.value && hints.value++

  /** On to the next card; after the last the deck is read anew. */
  async function next() {
    if (index.value + 1 >= cards.value.length) return load()
    await ask(index.value + 1)
  }

  /** Where the answer stands on the neck. */
  const places = computed(() => given.value.flatMap((part) => (part.place ? [part.place as Place] : [])))
  return {
    ...{ deck, cards, index, card, question, given, places, mark, kept, hints, problem, busy, score },
    ...{ load, ask, give, takeAway, check, takeBack, hint, next },
  }
}

export type Drill = ReturnType<typeof useDrill>
