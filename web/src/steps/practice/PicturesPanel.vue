<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Pictures } from '../../api/client'
import { signs } from '../../controls/spelling'
import { usePracticeQuery } from './address'
import MinutesPicture from './MinutesPicture.vue'
import TempoPicture from './TempoPicture.vue'

/** What the log and the cards say, each with what to do about it. */
const props = defineProps<{ pictures: Pictures | undefined }>()
const query = usePracticeQuery()
const chosen = ref('')
const items = computed(() => props.pictures?.progress.filter((p) => p.points.length > 0) ?? [])
const item = computed(() => items.value.find((p) => p.item === chosen.value) ?? items.value[0])
const week = computed(() =>
  Math.round((props.pictures?.days ?? []).slice(-7).reduce((sum, day) => sum + day.minutes, 0)),
)
const ask = (kind: string) => void query.set({ page: 'drill', scope: 'all', kind })
</script>

<template>
  <section class="pictures">
    <div class="bench">
      <div class="line">
        <h2>Minutes a day</h2>
        <span class="quiet">{{ week }} in the last seven days</span>
      </div>
      <MinutesPicture :days="pictures?.days ?? []" />
    </div>
    <div class="bench">
      <div class="line">
        <h2>Clean tempo</h2>
        <select
          v-if="items.length"
          :value="item?.item"
          aria-label="The lick or tune"
          @change="chosen = ($event.target as HTMLSelectElement).value"
        >
          <option v-for="one in items" :key="one.kind + one.item" :value="one.item">{{ one.item }}</option>
        </select>
      </div>
      <TempoPicture v-if="item" :item="item" />
      <p v-else class="quiet">No tempo is noted yet: learn a lick in parts.</p>
    </div>
    <div class="bench">
      <div class="line"><h2>Changes that are missed</h2></div>
      <ul v-if="pictures?.changes.length">
        <li v-for="one in pictures.changes" :key="one.card.id">
          <span>{{ signs(one.text) }}</span>
          <button type="button" class="chip" @click="ask(one.card.kind)">ask me</button>
        </li>
      </ul>
      <p v-else class="quiet">None that were asked more than once.</p>
    </div>
    <div class="bench">
      <div class="line"><h2>Left alone</h2></div>
      <ul v-if="pictures?.leftOut.length">
        <li v-for="one in pictures.leftOut" :key="one.item">
          <span>{{ one.text }}</span>
          <button type="button" class="chip" @click="query.set({ page: 'today' })">plan it</button>
        </li>
      </ul>
      <p v-else class="quiet">Nothing that was practised is older than two weeks.</p>
    </div>
  </section>
</template>

<style scoped>
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(30rem, 100%), 1fr));
  gap: 16px;
}
.bench {
  padding: 0.8rem 1.1rem;
  margin: 0;
}
.line {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  margin-bottom: 0.4rem;
}
li {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 0.6rem;
  padding: 0.25rem 0;
}
</style>
