<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import { answer, client, type Turnaround } from '../../api/client'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'
import type { Selection } from './selection'

/** Turnarounds and endings in this key, to be written or imagined on two bars. */
const props = defineProps<{ selection: Selection }>()
const tune = useTune()
const all = shallowRef<Turnaround[]>([])

watch(
  () => [tune.chart?.key.tonic, tune.chart?.key.mode, tune.chart?.meter] as const,
  async ([tonic, mode, meter]) => {
    if (!tonic || !mode || !meter) return
    try {
      all.value = await answer(
        client.POST('/api/compute/chart/turnarounds', { body: { key: { tonic, mode }, meter } }),
      )
    } catch (error) {
      tune.tell(error)
    }
  },
  { immediate: true },
)

/** The selected bar and the next; the last two where there is no next. */
const bar = computed(() =>
  Math.max(1, Math.min(props.selection.first.value + 1, props.selection.count.value - 1)),
)
const imagined = computed(() =>
  (tune.read?.bars ?? []).flatMap((b, index) => (b.imagined.length ? [index + 1] : [])),
)
const groups = computed(() => [
  { title: 'Turnarounds', list: all.value.filter((t) => !t.ends) },
  { title: 'Endings', list: all.value.filter((t) => t.ends) },
])

function put(t: Turnaround, imagine: boolean) {
  void tune.edit({ turnaround: { name: t.name, bar: bar.value, imagined: imagine } })
}

async function takeOff() {
  for (const number of imagined.value) await tune.edit({ write: { bar: number, text: '', imagined: true } })
}
</script>

<template>
  <p class="where">
    On <strong>bars {{ bar }} and {{ bar + 1 }}</strong>
    <span class="quiet"> in {{ signs(tune.chart?.key.tonic ?? '') }} {{ tune.chart?.key.mode }}</span>
  </p>
  <div v-if="imagined.length" class="layer">
    <button
      type="button"
      class="chip"
      :aria-pressed="Boolean(tune.chart?.imagining)"
      @click="tune.edit({ set: { imagining: !tune.chart?.imagining } })"
    >
      Follow the imagined chords
    </button>
    <button type="button" class="chip" @click="takeOff">Remove them</button>
  </div>
  <template v-for="group in groups" :key="group.title">
    <h2>{{ group.title }}</h2>
    <ul>
      <li v-for="t in group.list" :key="t.name">
        <div class="what">
          <strong v-if="t.bars" class="bars">{{ t.bars.map(signs).join(' | ') }}</strong>
          <span class="quiet" :title="signs(t.about)">{{ signs(t.refused ?? t.name) }}</span>
        </div>
        <template v-if="t.bars">
          <button type="button" class="chip" :aria-label="`Write ${t.name}`" @click="put(t, false)">
            Write
          </button>
          <button type="button" class="chip imagine" :aria-label="`Imagine ${t.name}`" @click="put(t, true)">
            Imagine
          </button>
        </template>
      </li>
    </ul>
  </template>
</template>

<style scoped>
.where {
  margin-bottom: 0.5rem;
}
.layer {
  display: flex;
  gap: 6px;
  margin-bottom: 0.6rem;
}
h2 {
  margin: 0.3rem 0 0.2rem;
}
li {
  display: flex;
  align-items: center;
  gap: 5px;
  padding: 0.22rem 0;
  border-top: 1px solid var(--line);
}
.what {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  line-height: 1.25;
}
.what .quiet {
  font-size: 0.84rem;
}
.bars {
  font-size: 0.98rem;
}
.chip {
  padding: 0.15rem 0.55rem;
  font-size: 0.88rem;
}
.imagine {
  font-style: italic;
  color: var(--next);
}
</style>
