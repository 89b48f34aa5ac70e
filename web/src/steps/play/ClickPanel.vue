<script setup lang="ts">
import { computed } from 'vue'
import { useBand } from '../../document/band'
import { useTune } from '../../document/tune'
import ChipRow from '../../controls/ChipRow.vue'
import type { Band } from '../../api/client'

/** How the click goes; fewer clicks leave more of the time to the player. */
type Click = NonNullable<Band['click']>
const band = useBand()
const tune = useTune()

const everyBeat = 'every beat'
const click = computed<Click>(() => band.band.click ?? {})
const set = (label: string, change: Partial<Click>) => {
  const next = Object.fromEntries(Object.entries({ ...click.value, ...change }).filter(([, value]) => value))
  void band.edit(`click: ${label}`, { click: Object.keys(next).length ? (next as Click) : undefined })
}
const subdivisions = ['quarters', 'eighths', 'triplets', 'sixteenths', 'quintuplets', 'sextuplets']
/** Once a beat is what a click is without saying so. */
const divide = (name: string) => {
  const perBeat = subdivisions.indexOf(name) + 1
  set(name, { perBeat: perBeat > 1 ? perBeat : undefined })
}
const accents = ['on 1', 'none', 'every 3rd', 'every 5th']
const accent = computed(() => {
  if (click.value.accentEvery === 3) return 'every 3rd'
  if (click.value.accentEvery === 5) return 'every 5th'
  return click.value.plain ? 'none' : 'on 1'
})
const gaps = ['none', '1 after 3', '2 after 2', '4 after 4', 'growing']
const gap = computed(() => {
  const { heard, gap, growing } = click.value
  if (growing) return 'growing'
  return gap ? `${gap} after ${heard ?? 1}` : 'none'
})
function setGap(text: string) {
  const [length, heard] = text.split(' after ').map(Number)
  if (text === 'growing') return set('gaps that grow', { heard: 2, gap: 1, growing: true })
  set(`gaps: ${text}`, { heard, gap: length || undefined, growing: undefined })
}
</script>

<template>
  <div>
    <ChipRow
      label="Beats with a click"
      says="on"
      :options="[everyBeat, ...(tune.choices?.clicksOn ?? [])]"
      :chosen="click.on || everyBeat"
      @choose="(on) => set(`on ${on}`, { on: on === everyBeat ? undefined : on })"
    />
    <ChipRow
      label="Clicks a beat"
      says="divided"
      :options="subdivisions"
      :chosen="subdivisions[(click.perBeat || 1) - 1] ?? ''"
      @choose="(name) => divide(name)"
    />
    <ChipRow
      label="Accent"
      says="accent"
      :options="accents"
      :chosen="accent"
      @choose="
        (name) =>
          set(`accent ${name}`, {
            plain: name === 'none' || undefined,
            accentEvery: Number.parseInt(name.slice(6)) || undefined,
          })
      "
    />
    <ChipRow label="Bars without a click" says="gaps" :options="gaps" :chosen="gap" @choose="setGap">
      <span class="quiet">bars without a click, after bars with one</span>
    </ChipRow>
  </div>
</template>
