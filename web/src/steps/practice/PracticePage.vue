<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { answer, client, type Pictures, type SessionBlock } from '../../api/client'
import { useView } from '../../address/view'
import { useKeys } from '../../controls/keys'
import { signs } from '../../controls/spelling'
import { minutesAhead } from '../../document/clock'
import { useSession } from '../../document/session'
import { useTune } from '../../document/tune'
import { usePlayer } from '../../sound/player'
import { pages, usePracticeQuery } from './address'
import BlockWork from './BlockWork.vue'
import { useDrill, type DrillChoice } from './drill'
import DrillCard from './DrillCard.vue'
import DrillChooser from './DrillChooser.vue'
import GoalPanel from './GoalPanel.vue'
import { useHearing } from './hearing'
import LickWork from './LickWork.vue'
import LogPanel from './LogPanel.vue'
import MinutesPicture from './MinutesPicture.vue'
import PhraseWork from './PhraseWork.vue'
import PicturesPanel from './PicturesPanel.vue'
import { minutesOf } from './plan'
import PlanList from './PlanList.vue'
import TimedDrill from './TimedDrill.vue'
import TemplateRow from './TemplateRow.vue'
import TempoPicture from './TempoPicture.vue'
import WeakMap from './WeakMap.vue'

const route = useRoute()
const tune = useTune()
const view = useView()
const player = usePlayer()
const session = useSession()
const query = usePracticeQuery()
const hear = useHearing()
const missing = ref('')

watch(
  () => Number(route.params.id),
  async (id) => {
    if (!id) return
    try {
      missing.value = ''
      await tune.open(id)
    } catch (error) {
      missing.value = error instanceof Error ? error.message : String(error)
    }
  },
  { immediate: true },
)

const planned = shallowRef<SessionBlock[]>([])
/** What may stand in the place of a block. */
const others = shallowRef<SessionBlock[]>([])
const pictures = shallowRef<Pictures>()
const problem = ref('')
async function attempt(work: () => Promise<unknown>) {
  try {
    problem.value = ''
    await work()
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}
const plan = () =>
  attempt(async () => {
    const wanted = { minutes: query.minutes.value, offset: minutesAhead() }
    const got = await answer(client.GET('/api/practice/plan', { params: { query: wanted } }))
    planned.value = got.blocks
    others.value = got.others
  })
const look = () =>
  attempt(async () => {
    const wanted = { offset: minutesAhead() }
    pictures.value = await answer(client.GET('/api/practice/pictures', { params: { query: wanted } }))
  })
onMounted(async () => {
  await session.resume()
  await Promise.all([plan(), look()])
})
watch(() => query.minutes.value, plan)
watch(
  () => session.at,
  () => void look(),
)

const on = computed(() => session.kept !== undefined && !session.over)
const blocks = computed(() => (session.kept ? session.blocks : planned.value))
const change = (next: SessionBlock[]) => (session.kept ? void session.change(next) : (planned.value = next))

/** A chorus over the band, that has no cards. */
const inTime = computed(() => query.page.value === 'drill' && query.kind.value === 'one tone in time')
/** The cards that are asked: those of the block that is on, or those that were chosen. */
const choice = computed<DrillChoice | undefined>(() => {
  if (!tune.read) return undefined
  if (inTime.value) return undefined
  if (query.page.value === 'drill') {
    if (query.cards.value) return { cards: query.cards.value.split(';') }
    const scope = query.scope.value
    return {
      ...(scope === 'tune' && { chart: tune.id }),
      ...(scope === 'keys' && { everyKey: true }),
      ...(query.kind.value && { kind: query.kind.value }),
    }
  }
  return query.page.value === 'today' && on.value && session.block?.kind === 'cards' ? {} : undefined
})
const drill = useDrill(
  () => choice.value,
  () => view.strategy.value,
)
watch(drill.question, (question) => void hear(question))
onBeforeUnmount(() => void player.stop())

type Went = 'rough' | 'fair' | 'clean'
const went = ref('')
const tempo = ref(0)
const note = ref('')
const goal = ref(0)
/** The goal that the log has for the lick that is on. */
const wantedTempo = computed(
  () => pictures.value?.progress.find((p) => p.item === session.block?.title)?.goal ?? 0,
)
/** Ends the block that is on, or begins the plan. */
async function goOn() {
  if (session.over) return session.close()
  if (!session.kept)
    return planned.value.length ? session.begin(minutesOf(planned.value), planned.value) : undefined
  if (!session.running) return session.run()
  const cards = session.block?.kind === 'cards' ? drill.score.value : undefined
  const said = { went: went.value, tempo: tempo.value, goal: goal.value, note: note.value }
  // The next block begins with nothing said.
  went.value = note.value = ''
  tempo.value = goal.value = 0
  const before = session.at
  await session.next({
    ...(cards && cards.of > 0 && { right: cards.right, of: cards.of }),
    ...(said.went && { went: said.went as Went }),
    ...(session.block?.kind === 'lick' && said.tempo > 0 && { went: 'clean' as Went }),
    ...(said.tempo > 0 && { tempo: said.tempo }),
    ...(said.goal > 0 && session.block?.kind === 'lick' && { goal: said.goal }),
    ...(said.note && { note: said.note }),
  })
  if (session.at !== before) return
  // It could not be saved: what was said stays.
  went.value = said.went
  note.value = said.note
  tempo.value = said.tempo
  goal.value = said.goal
}
const goesOn = computed(() => {
  if (session.over) return 'Done'
  if (!session.kept) return 'Begin'
  return session.running ? 'Go on' : 'Take it up again'
})
useKeys([
  {
    key: ' ',
    shown: 'space',
    says: 'stop what sounds; in silence begin, and go on to the next block',
    run: () => void (player.silent ? goOn() : player.stop()),
  },
])

const heading = computed(() =>
  session.kept ? `Today, ${session.kept.session.minutes} minutes` : `Today, ${query.minutes.value} minutes`,
)
const streak = computed(() => {
  const p = pictures.value
  if (!p || (!p.streak && !p.ofSeven)) return ''
  return `${p.streak ? `day ${p.streak} · ` : ''}${p.ofSeven} of the last 7`
})
/** What is shown as a line: the item with a goal that was practised last, or the last one. */
const progress = computed(() => {
  const all = pictures.value?.progress.filter((p) => p.points.length > 1) ?? []
  return all.find((p) => p.goal) ?? all[0]
})
const pickWeak = () => void query.set({ page: 'drill', scope: 'all' })
</script>

<template>
  <p v-if="missing" class="quiet" role="alert">{{ missing }}. <RouterLink to="/">All tunes</RouterLink></p>
  <section v-else-if="tune.read" class="practice">
    <header class="head">
      <h1>
        {{
          query.page.value === 'today' ? heading : pages.find((page) => page.name === query.page.value)?.title
        }}
      </h1>
      <nav class="pages" aria-label="Pages of Practice">
        <button
          v-for="page in pages"
          :key="page.name"
          type="button"
          class="chip"
          :aria-pressed="query.page.value === page.name"
          @click="query.set({ page: page.name })"
        >
          {{ page.title }}
        </button>
      </nav>
      <span class="quiet">{{ streak }}</span>
      <span v-if="query.page.value === 'today'" class="right">
        <template v-if="!session.kept">
          <button
            v-for="n in [10, 20, 40]"
            :key="n"
            type="button"
            class="chip"
            :aria-pressed="query.minutes.value === n"
            @click="query.set({ minutes: n })"
          >
            {{ n }}
          </button>
          <input
            class="minutes"
            type="number"
            min="5"
            max="120"
            aria-label="Minutes"
            :value="query.minutes.value"
            @change="query.set({ minutes: Number(($event.target as HTMLInputElement).value) })"
          />
        </template>
        <template v-else-if="on">
          <button v-if="session.running" type="button" class="chip" @click="session.pause()">pause</button>
          <button type="button" class="chip" @click="session.finish()">end it</button>
        </template>
        <button type="button" class="primary go" @click="goOn">{{ goesOn }} <small>space</small></button>
      </span>
    </header>
    <p v-if="session.problem || problem" class="warn" role="alert">{{ session.problem || problem }}</p>

    <LogPanel v-if="query.page.value === 'log'" class="bench" @changed="look" />
    <PicturesPanel v-else-if="query.page.value === 'pictures'" :pictures="pictures" />
    <GoalPanel v-else-if="query.page.value === 'goal'" class="bench" @changed="plan" />
    <template v-else>
      <div class="columns">
        <aside v-if="query.page.value === 'today'" class="bench side">
          <PlanList
            :blocks="blocks"
            :others="others"
            :at="session.kept ? session.at : undefined"
            :left="on ? session.left : undefined"
            @change="change"
          />
          <TemplateRow v-if="!session.kept" :blocks="planned" @take="(blocks) => (planned = blocks)" />
          <p class="care quiet">Take a break after 25 minutes. Headphones low. Stop if anything hurts.</p>
        </aside>
        <DrillChooser v-else class="bench side" :all="drill.deck.value" />
        <div class="bench main">
          <TimedDrill v-if="inTime" />
          <DrillCard
            v-else-if="choice"
            :drill="drill"
            @hear="hear(drill.question.value)"
            @done="query.page.value === 'today' && goOn()"
          />
          <LickWork
            v-else-if="on && session.block?.kind === 'lick' && session.block.item"
            v-model:tempo="tempo"
            v-model:goal="goal"
            :lick="session.block.item"
            :wanted="wantedTempo"
          />
          <PhraseWork v-else-if="on && session.block?.kind === 'phrase'" v-model:note="note" />
          <BlockWork
            v-else-if="on && session.block"
            v-model:went="went"
            v-model:tempo="tempo"
            v-model:note="note"
            :block="session.block"
          />
          <div v-else class="begin">
            <template v-if="session.over">
              <h2>Done.</h2>
              <p class="big">All of it is in the log. Let the hands rest.</p>
            </template>
            <template v-else>
              <h2>{{ session.kept ? 'It waits for you.' : 'This is the plan.' }}</h2>
              <p class="big">
                Space begins it, and goes on from block to block. Open a block to see why it is there; drag it
                to another place, make it longer, or leave it out.
              </p>
            </template>
          </div>
        </div>
      </div>
      <div v-if="query.page.value === 'today'" class="columns pictures">
        <div class="bench picture">
          <div class="line">
            <h2>Where you are weakest</h2>
            <span class="quiet">share right, by key and position</span>
          </div>
          <WeakMap :spots="pictures?.weakness ?? []" @pick="pickWeak" />
        </div>
        <div class="bench picture">
          <template v-if="progress">
            <div class="line">
              <h2>{{ signs(progress.item) }}: clean tempo</h2>
              <span v-if="progress.goal" class="wanted">goal {{ progress.goal }}</span>
            </div>
            <TempoPicture :item="progress" />
          </template>
          <template v-else>
            <div class="line"><h2>Minutes a day</h2></div>
            <MinutesPicture :days="pictures?.days ?? []" />
          </template>
        </div>
      </div>
    </template>
  </section>
  <p v-else class="quiet">Opening the tune…</p>
</template>

<style scoped>
.practice {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
}
.head {
  display: flex;
  align-items: center;
  gap: 0.6rem 1rem;
  flex-wrap: wrap;
}
/* As wide as the longest title: the pages beside it stay where they are when one is chosen. */
.head h1 {
  font-size: 1.75rem;
  min-width: min(16rem, 100%);
}
.pages,
.right {
  display: flex;
  align-items: center;
  gap: 6px;
}
.right {
  margin-left: auto;
}
.minutes {
  font: inherit;
  width: 4.2rem;
  padding: 0.2rem 0.5rem;
  border: 1px solid var(--line);
  border-radius: 999px;
  background: var(--card);
  color: var(--ink);
}
.go {
  font-size: 1.1rem;
  padding: 0.55rem 2rem;
}
.go small {
  font-weight: 500;
  opacity: 0.85;
}
.columns {
  display: flex;
  gap: 18px;
  align-items: stretch;
}
.bench {
  padding: 0.8rem 1.1rem;
  margin: 0;
}
.side {
  flex: 0 0 19rem;
  display: flex;
  flex-direction: column;
}
.main {
  flex: 1;
  min-width: 0;
  display: flex;
  min-height: 31rem;
}
.care {
  margin-top: auto;
  padding-top: 0.6rem;
}
.begin {
  max-width: 40rem;
  margin: auto 0;
}
.begin h2 {
  font-size: 2rem;
}
.big {
  font-size: 1.25rem;
  margin-top: 0.6rem;
}
.picture {
  flex: 1;
  min-width: 0;
}
.line {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  margin-bottom: 0.3rem;
}
.wanted {
  color: var(--next);
  font-weight: 700;
}
.warn {
  color: var(--next);
  font-weight: 650;
}
@container main (max-width: 58rem) {
  .columns {
    flex-direction: column;
  }
  .side {
    flex: none;
  }
  .main {
    min-height: 0;
  }
}
</style>
