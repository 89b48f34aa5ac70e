<script setup lang="ts">
import type { Cursor, Grade } from './cursor'
import { techniqueKeys } from './writekeys'

/** The length of the next note, and how it is played. */
defineProps<{ cursor: Cursor }>()

const grades: { name: Grade; sign: string; says: string }[] = [
  { name: 'dotted', sign: '.', says: 'dotted' },
  { name: 'triplet', sign: '3', says: 'triplet' },
]
const lengthSigns: Record<string, string> = {
  whole: '1',
  half: '½',
  quarter: '¼',
  eighth: '⅛',
  sixteenth: '1/16',
  'thirty-second': '1/32',
}
</script>

<template>
  <div class="line">
    <span class="group" role="group" aria-label="Length">
      <button
        v-for="l in cursor.lengths.value"
        :key="l.name"
        type="button"
        class="chip tool"
        :aria-pressed="l.name === cursor.base.value"
        :aria-label="l.name"
        :title="l.name"
        @click="cursor.setLength(l.name, cursor.grade.value)"
      >
        {{ lengthSigns[l.name] }}
      </button>
      <button
        v-for="g in grades"
        :key="g.name"
        type="button"
        class="chip tool"
        :aria-pressed="cursor.grade.value === g.name"
        :aria-label="g.says"
        :title="g.says"
        @click="cursor.regrade(g.name)"
      >
        {{ g.sign }}
      </button>
    </span>
    <span class="group" role="group" aria-label="How it is played">
      <button
        v-for="t in techniqueKeys"
        :key="t.name"
        type="button"
        class="chip tool"
        :title="`${t.name} (${t.key})`"
        :aria-label="t.name"
        @click="cursor.play(t.name)"
      >
        {{ t.short }}
      </button>
      <button type="button" class="chip tool" title="bend (b)" @click="cursor.bend()">bend</button>
      <button
        type="button"
        class="chip tool"
        title="a quarter tone (q)"
        aria-label="quarter tone"
        @click="cursor.quarter()"
      >
        ¼
      </button>
    </span>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.3rem 0.55rem;
  margin-bottom: 3px;
}
.group {
  display: flex;
  flex-wrap: wrap;
  gap: 1px;
}
.tool {
  padding: 0.06rem 0.2rem;
  font-size: 0.8rem;
}
</style>
