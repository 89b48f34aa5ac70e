import { computed, ref, type Ref } from 'vue'
import type { Chart, Hands, KeptLick, Lick, Tab, WrittenLick } from '../../api/client'
import { useView } from '../../address/view'
import { useTune } from '../../document/tune'
import type { PerformanceRequest } from '../../api/client'
import { usePlayer } from '../../sound/player'
import type { Cursor } from '../../tab/cursor'
import { asEvent, heard } from '../../tab/tab'
import type { Writing } from '../../tab/writing'
import type { LicksQuery, PanelName } from './address'
import type { VariantsWork } from './variants'
import type { Joining } from './joining'
import type { LineWork } from './line'
import type { MovesWork } from './moves'
import type { VerdictWork } from './verdict'

interface Frets {
  low: number
  high: number
}

/** What a panel shows of a lick: one entry for each, so that nothing else need ask which is open. */
export interface Panel {
  /** What stands before the lick's name, and behind it. */
  before: string
  after: string
  /** What behind the name is most important. */
  strong: string
  /** The tab that is looked at, and the chart it is heard over; the tune where there is none. */
  tab?: Tab
  own?: Chart
  /** The frets that what is shown lies on. */
  frets?: Frets
  /** What is kept when the player keeps what is shown. */
  kept?: Lick
}

interface Works {
  lick: Ref<KeptLick | undefined>
  /** The lick as it is written, on its own neck. */
  asIs: Ref<WrittenLick | undefined>
  line: LineWork
  moves: MovesWork
  verdict: VerdictWork
  variants: VariantsWork
  joining: Joining
  writing: Writing
  cursor: Cursor
}

/** What each panel of the Licks step shows and sounds. */
export function usePanels(query: LicksQuery, works: Works) {
  const tune = useTune()
  const view = useView()
  const player = usePlayer()
  const { line, moves, verdict, variants, joining, writing, cursor, asIs } = works
  /** The note of what is written that is heard first. */
  const heardFrom = ref(0)

  const where = computed(() => {
    const tonic = query.here.value ? tune.chart?.key.tonic : works.lick.value?.lick.tonic
    return query.here.value ? `In ${tonic}, under the hand` : `As written, in ${tonic}`
  })
  const panel = computed<Panel>(() => {
    const change = view.pickedChange.value
    const own = asIs.value && !query.here.value ? asIs.value.chart : undefined
    switch (query.panel.value) {
      case 'import':
        return { before: 'From a file, or pasted', after: '', strong: '' }
      case 'write':
        return {
          ...{ before: `Written in ${writing.lick.value?.tonic ?? ''}`, after: '', strong: '' },
          frets: writing.written.value,
        }
      case 'move': {
        const chosen = moves.chosen.value
        const over = moves.choice.value.over
        return {
          ...{ before: where.value, after: over ? `: ${chosen?.text ?? ''}` : '' },
          ...{
            strong: over ? `over ${over.chord}` : '',
            tab: chosen?.tab,
            frets: chosen,
            kept: chosen?.lick,
          },
        }
      }
      case 'verdict': {
        const judged = verdict.verdict.value
        return {
          ...{
            before: where.value,
            after: '',
            tab: judged?.tab,
            own: judged?.ownChart,
            frets: own && asIs.value,
          },
          strong: judged ? `over ${judged.coverage.map((c) => c.chord).join(', ')}` : '',
          kept: verdict.repaired.value.length ? judged?.lick : undefined,
        }
      }
      case 'variants': {
        const chosen = variants.chosen.value
        return {
          ...{ before: where.value, after: '', strong: chosen?.name ?? '' },
          ...{ tab: chosen?.tab, own: chosen?.ownChart, frets: chosen, kept: chosen?.lick },
        }
      }
      case 'join': {
        const joined = joining.joined.value
        return {
          ...{ before: where.value, after: '', strong: '', tab: joined?.tab, own: joined?.ownChart },
          ...{ kept: joined?.lick, frets: own && asIs.value },
        }
      }
      case 'versions':
        return {
          ...{ before: where.value, after: '', strong: '', tab: asIs.value?.tab },
          ...{ own: asIs.value?.chart, frets: asIs.value },
        }
      default: {
        const target = line.line.value?.target
        return {
          before: change ? `Bar ${change.leaving.bar} → ${change.arriving.bar}` : '',
          strong: target && change ? `into ${target.note}` : '',
          after: target && change ? `, the ${target.degree} of ${change.arriving.chord}` : '',
        }
      }
    }
  })
  /** What the lick is played on, where it is taken as it is written. */
  const hands = computed<Hands | undefined>(() =>
    query.here.value || !asIs.value ? undefined : { instrument: asIs.value.instrument },
  )

  /** What is written, or what is selected of it, over its own chords. */
  function writtenSource(): PerformanceRequest | undefined {
    const shown = writing.written.value
    if (!shown || shown.tab.events.length === 0) return undefined
    const { from, to } = cursor.range.value
    const chosen = cursor.selected.value
    const wanted = (tick: number) => !chosen || (tick >= from && tick < to)
    const first = shown.tab.events.findIndex((e) => wanted(e.tick))
    const events = shown.tab.events.filter((e) => wanted(e.tick))
    if (first < 0) return undefined
    const { start, barTicks, meter } = shown.tab
    const bar = (tick: number) => Math.floor((tick + start) / barTicks)
    const begin = chosen ? bar(from) : 0
    const end = chosen ? bar(Math.max(to - 1, from)) + 1 : shown.tab.bars
    // What is not selected is not heard, and events keep their numbers.
    heardFrom.value = first
    return {
      ...{ chart: shown.chart, hands: { instrument: shown.instrument } },
      ...{ from: begin + 1, bars: Math.max(end - begin, 1), countIn: player.loop ? 0 : 1 },
      line: { meter, start, events: events.map(asEvent) },
    }
  }

  function leadSource(): PerformanceRequest | undefined {
    const shown = line.line.value
    const chart = line.opened.value?.chart.chart ?? tune.chart
    if (!shown || !chart) return undefined
    return {
      ...{ chart, from: shown.firstBar, bars: shown.bars, countIn: 1 },
      line: { meter: shown.meter, start: shown.start, events: shown.events.map(asEvent) },
    }
  }

  function source(): PerformanceRequest | undefined {
    heardFrom.value = 0
    if (query.panel.value === 'write') return writtenSource()
    if (query.panel.value === 'lead') return leadSource()
    const { tab, own } = panel.value
    const chart = own ?? tune.chart
    return tab && chart ? { chart, ...heard(tab), ...(hands.value ? { hands: hands.value } : {}) } : undefined
  }

  const is = (name: PanelName) => () => query.panel.value === name
  return { panel, where, source, heardFrom, is }
}
