<script setup lang="ts">
import { computed, ref } from 'vue'
import { useMapQuery } from './address'
import { readLayout } from './layouts'
import { signs } from '../../controls/spelling'
import { useTune } from '../../document/tune'

/** Taking maps away: one chord, the whole tune, or necks to fill in. */
const props = defineProps<{ chord: string; position: string }>()
const tune = useTune()
const map = useMapQuery()
const paper = ref('A4')
const papers = ['A4', 'Letter']

interface Sheet {
  name: string
  title: string
  about: string
  query: Record<string, string>
}
const whole: Record<string, string> = {}
/** The chord as it is laid out on the screen. */
const here = computed<Record<string, string>>(() => {
  const { kind = '', from, low, high } = readLayout(map.layout.value)
  return {
    ...{ chord: props.chord, position: props.position },
    ...(kind && { layout: kind }),
    ...(from && { from }),
    ...(high !== undefined && { low: String(low ?? 0), high: String(high) }),
  }
})
const neck = computed<Record<string, string>>(() => ({ ...here.value, whole: 'true' }))
const sheets = computed<Sheet[]>(() => [
  {
    name: 'map',
    title: `${signs(props.chord)} here`,
    about: map.layout.value ? 'as it is laid out, large' : 'large, with notes and fingers',
    query: here.value,
  },
  {
    name: 'map',
    title: `${signs(props.chord)} on the whole neck`,
    about: 'every place of its tones',
    query: neck.value,
  },
  {
    name: 'practice',
    title: 'the whole tune',
    about: 'its bars, and every chord in five positions',
    query: whole,
  },
  { name: 'blank', title: 'blank necks', about: 'to fill in', query: whole },
])

function href(sheet: Sheet, as: string) {
  const query = new URLSearchParams({ as, paper: paper.value, ...sheet.query })
  return `/api/charts/${tune.id}/sheets/${sheet.name}?${query}`
}

/** The sheet is of what is saved, so what is on its way is waited for. */
async function take(event: MouseEvent, sheet: Sheet, as: string) {
  if (tune.saveState === 'saved') return
  event.preventDefault()
  if (await tune.settled()) location.assign(href(sheet, as))
}

/** Dots to a millimetre of a PNG: about 300 to the inch. */
const dots = 12

/** A PNG is the SVG, drawn by the browser. */
async function png(sheet: Sheet) {
  if (!(await tune.settled())) return
  try {
    const response = await fetch(href(sheet, 'svg'))
    if (!response.ok) throw new Error(`Undaris answered with status ${response.status}.`)
    const image = new Image()
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(await response.text())}`
    await image.decode()
    const millimetres = 96 / 25.4
    const canvas = document.createElement('canvas')
    canvas.width = Math.round((image.naturalWidth / millimetres) * dots)
    canvas.height = Math.round((image.naturalHeight / millimetres) * dots)
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
    const link = document.createElement('a')
    link.download = `${tune.chart?.title ?? 'sheet'}, ${sheet.name}.png`
    link.href = canvas.toDataURL('image/png')
    link.click()
  } catch (error) {
    tune.tell(error)
  }
}
</script>

<template>
  <div class="paper">
    <ul>
      <li v-for="sheet in sheets" :key="sheet.title">
        <strong>{{ sheet.title }}</strong>
        <span class="quiet">{{ sheet.about }}</span>
        <a
          v-for="as in ['pdf', 'svg']"
          :key="as"
          class="chip"
          :href="href(sheet, as)"
          :aria-label="`${as.toUpperCase()} of ${sheet.title}`"
          download
          @click="take($event, sheet, as)"
          >{{ as.toUpperCase() }}</a
        >
        <button type="button" class="chip" :aria-label="`PNG of ${sheet.title}`" @click="png(sheet)">
          PNG
        </button>
      </li>
    </ul>
    <span class="group" role="group" aria-label="Paper">
      <button
        v-for="p in papers"
        :key="p"
        type="button"
        class="chip"
        :aria-pressed="paper === p"
        @click="paper = p"
      >
        {{ p }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.paper {
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 1px;
}
strong {
  min-width: 12rem;
}
.quiet {
  min-width: 19rem;
}
.group {
  display: flex;
  gap: 4px;
}
.chip {
  padding: 0 0.65rem;
  color: inherit;
  text-decoration: none;
}
.chip[aria-pressed='true'] {
  color: var(--on-fill);
}
@container main (max-width: 52rem) {
  .paper,
  li {
    flex-wrap: wrap;
  }
  .quiet,
  strong {
    min-width: 0;
  }
}
</style>
