<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Pass, PathTarget, StageSpan } from '../../api/client'
import { signs } from '../../controls/spelling'
import type { BeatMark } from '../../sound/transport'
import FitText from './FitText.vue'
import type { NextChord } from './next'
import { useWidth } from '../../controls/measure'

/** The chord that sounds, the next one and what to land on, to be read from two metres away. */
const props = defineProps<{
  pass: Pass
  chord: StageSpan | undefined
  next: NextChord | undefined
  landing: PathTarget | undefined
  near: boolean
  beat: BeatMark | undefined
  /** The bar that was picked, shown while nothing sounds. */
  picked: number
  shown: string
  yours: boolean
  /** The box of the key that comes with the next chord, where it is another. */
  arrivingBox: string | undefined
}>()

const beats = computed(() => {
  const bar = props.beat?.bar ?? props.picked
  return Math.max(...props.pass.performance.beats.filter((b) => b.bar === bar).map((b) => b.beat), 1)
})
const counting = computed(() => props.beat !== undefined && props.beat.bar < 1)
const nowText = computed(() => (props.chord?.silent ? 'N.C.' : signs(props.chord?.chord ?? '')))
/** Long symbols are set smaller, so that two chords and the landing have room. */
const size = (text: string) => (text.length > 7 ? 'longest' : text.length > 4 ? 'long' : '')
/** How wide the chord may be, in px, on a stage as wide as this one; what is wider is drawn narrower. */
const stage = ref<HTMLElement>()
const { width: stageWidth, scale } = useWidth(stage, 1148)
const mostWidth = computed(() =>
  stageWidth.value * scale.value > 968 ? 500 : stageWidth.value * scale.value,
)
const showsChords = computed(() => !['form', 'nothing'].includes(props.shown))
const showsLanding = computed(
  () => props.landing && props.near && !['names', 'form', 'nothing', 'roots'].includes(props.shown),
)
const soon = computed(() => {
  const left = props.next?.beats ?? 0
  return left === 1 ? 'in 1 beat' : `in ${left} beats`
})
</script>

<template>
  <div ref="stage" class="stage" :class="{ soon: (next?.beats ?? 9) <= 2 && beat }">
    <p v-if="showsChords" class="now" :class="size(nowText)" aria-live="off">
      <FitText :text="nowText" :most="mostWidth" />
    </p>
    <div class="where">
      <p v-if="showsChords" class="roman">
        {{ chord?.silent ? '' : signs(chord?.roman ?? '')
        }}<span v-if="chord?.written" class="written"> over {{ signs(chord.written) }}</span>
      </p>
      <p class="beats" aria-hidden="true">
        <i v-for="n in beats" :key="n" :class="{ past: beat && n <= beat.beat }" />
      </p>
      <p class="bar">
        <template v-if="counting">counting in</template>
        <template v-else
          >bar {{ beat?.bar ?? picked
          }}<span v-if="beat" class="chorus"> · ch {{ pass.place.chorus + 1 }}</span
          ><span v-if="yours" class="yours"> · yours</span></template
        >
      </p>
    </div>
    <template v-if="next && showsChords">
      <div class="then">
        <p class="quiet then-what">
          then<template v-if="arrivingBox">: {{ signs(arrivingBox) }}</template>
        </p>
        <p class="next" :class="size(signs(next.chord))">{{ signs(next.chord) }}</p>
      </div>
      <div class="where">
        <p class="roman">{{ signs(next.roman) }}</p>
        <p class="left">{{ soon }}</p>
      </div>
    </template>
    <div v-if="showsLanding && landing" class="landing">
      <p class="quiet">land on</p>
      <p class="note">{{ signs(landing.note) }}</p>
      <p class="place">
        <strong>the {{ signs(landing.degree) }}, string {{ landing.string }}, fret {{ landing.fret }}</strong>
        <span class="quiet how">{{ signs(landing.text) }}</span>
      </p>
    </div>
  </div>
</template>

<style scoped>
.stage {
  display: flex;
  flex-wrap: nowrap;
  align-items: flex-end;
  gap: 0 1.6rem;
  height: 150px;
  padding: 0 0 2px;
  overflow: hidden;
}
.now {
  flex: none;
  min-width: 190px;
  color: var(--now);
  font-size: 144px;
  font-weight: 750;
  line-height: 1;
  letter-spacing: -0.03em;
  white-space: nowrap;
}
.now.long {
  letter-spacing: -0.06em;
}
.now.longest {
  font-size: 140px;
  letter-spacing: -0.07em;
}
/* Beside a long chord the others make room. */
.now.long ~ .then .next,
.now.longest ~ .then .next {
  font-size: 60px;
}
.now.long ~ .landing .how,
.now.longest ~ .landing .how,
.now.longest ~ .landing .place {
  display: none;
}
.written {
  color: var(--stone);
  font-weight: 400;
}
.where {
  flex: none;
  padding-bottom: 12px;
}
.roman {
  font-size: 1.7rem;
  color: var(--stone);
  min-height: 2.1rem;
}
.beats {
  display: flex;
  gap: 10px;
  margin: 6px 0;
}
.beats i {
  width: 24px;
  height: 24px;
  border: 2px solid var(--now);
  border-radius: 50%;
}
.beats i.past {
  background: var(--now);
}
.bar {
  font-size: 1.7rem;
  font-weight: 700;
  white-space: nowrap;
}
.chorus {
  font-weight: 500;
  color: var(--stone);
}
.yours {
  color: var(--next);
}
.then {
  flex: none;
}
.then-what {
  white-space: nowrap;
}
.then .quiet,
.landing > .quiet {
  font-size: 1.15rem;
}
.next {
  color: var(--next);
  font-size: 88px;
  font-weight: 750;
  line-height: 1.05;
  letter-spacing: -0.03em;
  white-space: nowrap;
  padding-bottom: 8px;
}
.next.long {
  font-size: 70px;
}
.next.longest {
  font-size: 52px;
}
.left {
  color: var(--next);
  font-size: 1.6rem;
  font-weight: 700;
  white-space: nowrap;
}
.landing {
  min-width: 0;
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
  column-gap: 0.9rem;
  padding-bottom: 14px;
}
.landing > .quiet {
  grid-column: 1 / -1;
}
.note {
  color: var(--next);
  font-size: 60px;
  font-weight: 750;
  line-height: 1;
}
.place {
  font-size: 1.15rem;
}
.place strong {
  display: block;
}
.how {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
  font-size: 0.95rem;
}
@container main (max-width: 65rem) {
  .now.longest ~ .landing .place {
    display: block;
  }
  .stage {
    flex-wrap: wrap;
    height: auto;
  }
  .landing {
    flex-basis: 100%;
  }
}
/* On a phone the two chords stand side by side, or one below the other where they are long. */
@container main (max-width: 38rem) {
  .stage {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 1rem;
  }
  .now {
    min-width: 0;
    font-size: 104px;
  }
  .now.long,
  .now.longest {
    grid-column: 1 / -1;
    font-size: 96px;
  }
  .now.longest {
    letter-spacing: -0.09em;
  }
  .then {
    grid-column: 2;
    grid-row: 1;
  }
  .now.long ~ .then,
  .now.longest ~ .then {
    grid-row: 2;
  }
  .where {
    grid-column: 1;
    padding-bottom: 4px;
  }
  .then + .where {
    grid-column: 2;
    align-self: end;
  }
  .beats i {
    width: 20px;
    height: 20px;
  }
  .roman {
    display: none;
  }
  .next {
    font-size: 64px;
    padding-bottom: 0;
  }
  .next.long,
  .next.longest {
    font-size: 44px;
  }
  .bar,
  .left {
    font-size: 1.3rem;
  }
  .landing {
    grid-column: 1 / -1;
    padding-bottom: 2px;
  }
  .then .then-what {
    white-space: normal;
    font-size: 0.9rem;
  }
  .landing > .quiet,
  .how {
    display: none;
  }
  .note {
    font-size: 36px;
  }
}
@container main (max-width: 22rem) {
  .stage {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
  }
  .now,
  .now.long,
  .now.longest {
    font-size: 80px;
  }
  .next,
  .next.long,
  .next.longest {
    font-size: 44px;
  }
  .bar {
    white-space: normal;
  }
}
</style>
