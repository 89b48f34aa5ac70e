<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { answer, client, type ChangeView, type Move, type Place } from '../api/client'
import { changeMarks, type Arrow } from '../neck/marks'
import NeckView from '../neck/NeckView.vue'
import { samePlace } from '../neck/geometry'
import { named } from '../shell/options'
import PillSelect from '../shell/PillSelect.vue'
import { useSource } from '../sound/player'
import { useKeys } from '../tune/keys'
import { signs } from '../tune/spelling'
import { useTune } from '../tune/tune'
import { useView } from '../tune/view'

const tune = useTune()
const view = useView()
const shown = shallowRef<ChangeView>()
const chosen = ref(0)
const school = computed(() => view.text('school') || tune.choices?.schools[0] || '')

watch(
  [() => tune.chart, () => view.change.value?.tick, () => view.position.value?.id, school, () => tune.hands],
  async ([chart, change, position, aim, hands], before) => {
    if (!chart || change === undefined || !position) {
      shown.value = undefined
      return
    }
    try {
      const got = await answer(
        client.POST('/api/compute/change', { body: { chart, hands, change, position, school: aim } }),
      )
      if (tune.chart !== chart || view.change.value?.tick !== change || view.position.value?.id !== position)
        return
      shown.value = got
      if (before.some((value, index) => value !== [chart, change, position, aim, hands][index]))
        chosen.value = 0
    } catch (error) {
      tune.tell(error)
    }
  },
  { immediate: true },
)

const marks = computed(() => (shown.value ? changeMarks(shown.value.from, shown.value.to) : []))

// Half steps are what lead; they are drawn, and with them the way that is chosen.
const arrows = computed<Arrow[]>(() =>
  (shown.value?.moves ?? []).flatMap((move, index) => {
    const strong = index === chosen.value
    const near = Math.abs(move.from.string - move.to.string) === 0
    if (samePlace(move.from, move.to) || !(strong || (near && move.kind === 'half step'))) return []
    return [{ from: move.from, to: move.to, text: String(index + 1), spoken: move.sentence, strong }]
  }),
)

function where(move: Move) {
  const strings =
    move.from.string === move.to.string
      ? `string ${move.from.string}`
      : `strings ${move.from.string}→${move.to.string}`
  return samePlace(move.from, move.to)
    ? `string ${move.from.string} · fret ${move.from.fret}`
    : `${strings} · ${move.from.fret}→${move.to.fret}`
}

function pick(place: Place) {
  const index = shown.value?.moves.findIndex((m) => samePlace(m.from, place) || samePlace(m.to, place)) ?? -1
  if (index >= 0) chosen.value = index
}

function choose(by: number) {
  const count = shown.value?.moves.length ?? 0
  chosen.value = Math.min(Math.max(chosen.value + by, 0), Math.max(count - 1, 0))
}

const list = ref<HTMLElement>()
watch(chosen, (index) => list.value?.children[index]?.scrollIntoView({ block: 'nearest' }), { flush: 'post' })

useSource(() => {
  const change = view.change.value
  if (!tune.chart || !change) return undefined
  return { chart: tune.chart, from: change.leaving.bar, bars: 2, countIn: 1 }
})

useKeys([
  { key: 'ArrowUp', shown: '↑', says: 'the way above', run: () => choose(-1) },
  { key: 'ArrowDown', shown: '↓', says: 'the way below', run: () => choose(1) },
])
</script>

<template>
  <p v-if="!view.change.value" class="says">
    This tune stays on one chord, so nothing changes. Give it a scheme above to work on its changes.
  </p>
  <section v-else-if="shown && tune.map">
    <p class="says">
      <span class="quiet">
        Bar {{ shown.leaving.bar }} → {{ shown.arriving.bar
        }}<template v-if="shown.wraps"> (the next chorus)</template>
      </span>
      <strong class="leaving">{{ signs(shown.leaving.chord) }}</strong> gives way to
      <strong class="arriving">{{ signs(shown.arriving.chord) }}</strong>
      <span class="headline">{{ signs(shown.headline) }}</span>
    </p>
    <NeckView
      :instrument="tune.map.instrument"
      :span="shown.position"
      :marks="marks"
      :arrows="arrows"
      :label="`${signs(shown.leaving.chord)} to ${signs(shown.arriving.chord)} on the neck`"
      :spacing="36"
      @pick="pick"
    />
    <p class="legend quiet">
      hollow: leaving · filled: arriving · both: held in place · arrows: half steps on one string, numbered as
      below
    </p>
    <div class="bench columns">
      <div class="ways">
        <div class="head">
          <h2>Ways across</h2>
          <span class="quiet">best first, {{ shown.moves.length }} in this position</span>
          <PillSelect
            class="school"
            label="What to aim at"
            :chosen="school"
            :options="named(tune.choices?.schools)"
            @choose="(aim) => view.set({ school: aim })"
          />
        </div>
        <ol ref="list" class="moves" aria-label="Ways across, best first">
          <li v-for="(move, index) in shown.moves" :key="`${where(move)} ${move.sentence}`">
            <button
              type="button"
              :class="{ chosen: index === chosen }"
              :aria-pressed="index === chosen"
              @click="chosen = index"
            >
              <span class="rank quiet tabular">{{ index + 1 }}</span>
              <b class="pair"
                >{{ signs(move.from.note) }} {{ move.semitones === 0 ? '=' : '→' }}
                {{ signs(move.to.note) }}</b
              >
              <span>{{ signs(move.sentence) }}</span>
              <span class="where quiet tabular">{{ where(move) }}</span>
            </button>
          </li>
        </ol>
      </div>
      <aside>
        <h2>What tells {{ signs(shown.arriving.chord) }}</h2>
        <p v-if="shown.telling.length" class="telling">
          <span v-for="tone in shown.telling" :key="tone.degree" class="pebble">
            <b>{{ signs(tone.degree) }}</b> {{ signs(tone.note) }}
          </span>
        </p>
        <p class="quiet">
          {{
            shown.telling.length
              ? 'Neither in the chord you leave nor in your box.'
              : 'No tone of it is new: all are in the chord you leave or in your box.'
          }}
        </p>
        <h2>Your box over it</h2>
        <p>{{ signs(shown.box.sentence.charAt(0).toUpperCase() + shown.box.sentence.slice(1)) }}.</p>
        <p class="quiet">
          It holds
          <template v-if="!shown.box.holds.length">none of its tones</template>
          <template v-for="(tone, index) in shown.box.holds" :key="tone.degree">
            {{ index ? ', ' : '' }}{{ signs(tone.note) }} ({{ signs(tone.degree) }})</template
          >.
        </p>
        <RouterLink class="lead" :to="{ name: 'licks', params: $route.params, query: $route.query }">
          Lead a lick over this change →
        </RouterLink>
      </aside>
    </div>
  </section>
</template>

<style scoped>
.leaving,
.arriving {
  font-size: 1.25rem;
  color: var(--now);
}
.arriving {
  color: var(--next);
}
.headline {
  margin-left: 0.6rem;
}
.legend {
  font-size: 0.85rem;
  margin: 2px 0 8px;
}
.columns {
  display: grid;
  grid-template-columns: 1fr 20rem;
  gap: 1.6rem;
}
.school {
  margin-left: auto;
}
.moves {
  height: 274px;
  overflow-y: auto;
  scrollbar-gutter: stable;
}
.moves button {
  display: grid;
  grid-template-columns: 1.6rem 5.2rem 1fr auto;
  gap: 0.6rem;
  width: 100%;
  text-align: left;
  padding: 0.5rem 0.6rem;
  border: 0;
  border-radius: 8px;
  background: none;
  cursor: pointer;
}
.moves button:hover {
  background: var(--shade);
}
.moves button.chosen {
  background: var(--now-tint);
}
.where {
  font-size: 0.88rem;
}
aside {
  border-left: 1px solid var(--line);
  padding-left: 1.4rem;
}
aside h2 {
  margin: 0 0 0.4rem;
}
aside p + h2 {
  margin-top: 1.1rem;
}
.telling {
  display: flex;
  gap: 0.5rem;
  margin-bottom: 0.3rem;
}
.pebble {
  background: var(--next-fill);
  color: var(--on-fill);
  border-radius: 999px;
  padding: 0.25rem 0.9rem;
}
.lead {
  display: inline-block;
  margin-top: 1.2rem;
  color: var(--now);
  font-weight: 700;
}
</style>
