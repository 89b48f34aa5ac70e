import { ref, type Ref } from 'vue'
import type { Block, ChorusView } from '../../api/client'
import type { Ruler } from './ruler'

interface Handlers {
  select(block: number): void
  move(block: number, ticks: number): void
  stretch(block: number, ticks: number): void
}

const fixed = (block: Block) => block.kind === 'rest' || block.locked

/** A block that is dragged along the time line, or its end, in steps of the grid. */
export function useDragging(
  view: () => ChorusView,
  ruler: Ref<Ruler>,
  svg: Ref<SVGSVGElement | undefined>,
  on: Handlers,
) {
  const drag = ref<{ block: number; end: boolean; from: number; ticks: number }>()
  const scale = () => ruler.value.width / (svg.value?.getBoundingClientRect().width || ruler.value.width)
  const snapped = (ticks: number) => Math.round(ticks / view().step) * view().step

  function grab(event: PointerEvent, block: number, end: boolean) {
    if (event.button !== 0) return
    drag.value = { block, end, from: event.clientX, ticks: 0 }
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  }
  function pull(event: PointerEvent) {
    const now = drag.value
    if (!now) return
    drag.value = { ...now, ticks: snapped(ruler.value.ticks((event.clientX - now.from) * scale())) }
  }
  const cancel = () => (drag.value = undefined)
  function drop() {
    const was = drag.value
    cancel()
    if (!was) return
    on.select(was.block)
    const block = view().blocks[was.block]
    if (was.ticks === 0 || !block || fixed(block)) return
    if (was.end) on.stretch(was.block, was.ticks)
    else on.move(was.block, was.ticks)
  }
  /** How far a block is shifted and made longer while it is dragged, in ticks. */
  function dragged(block: Block, index: number) {
    const mine = drag.value?.block === index && !fixed(block) ? drag.value : undefined
    return { shift: mine && !mine.end ? mine.ticks : 0, longer: mine?.end ? mine.ticks : 0 }
  }
  return { grab, pull, drop, cancel, dragged }
}
