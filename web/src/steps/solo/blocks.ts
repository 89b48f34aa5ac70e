import { computed, nextTick, ref, watch, type Ref } from 'vue'
import { answer, client, type Block, type ChorusEdit, type LickEvent } from '../../api/client'
import { useLicks } from '../../document/licks'
import { useAnswer } from '../../api/ask'
import { useTune } from '../../document/tune'
import { useView } from '../../address/view'
import type { SoloWork } from './work'

interface Around {
  /** Whether the time line is what is looked at. */
  onLine: () => boolean
  bar: Ref<number>
  chords: Ref<{ tick: number; chord: string }[]>
  goToTick: (tick: number) => void
}

/** What may be laid beside a lick. */
const layable = [
  { value: 'approach', text: 'an approach' },
  { value: 'connector', text: 'a connector' },
  { value: 'free notes', text: 'a free note' },
  { value: 'rest', text: 'a rest of a beat' },
]

const dice = () => Math.floor(Math.random() * 1_000_000) + 1

/** The block that is chosen on the time line, and what is done with it. */
export function useBlocks(work: SoloWork, { onLine, bar, chords, goToTick }: Around) {
  const tune = useTune()
  const view = useView()
  const { shown, at } = work
  const licks = useLicks()
  const selected = ref<number>()
  /** The block whose notes are being written. */
  const writing = ref<number>()
  watch(at, () => {
    selected.value = undefined
    writing.value = undefined
  })
  const block = computed(() => shown.value?.blocks[selected.value ?? -1])
  /** Where something is laid: on the block, or at the bar. */
  const here = () => block.value?.start ?? tune.read?.played[bar.value - 1]?.tick ?? 0

  /** Does something to the block that is chosen. */
  function act(edit: Omit<ChorusEdit, 'blocks'>) {
    if (selected.value !== undefined && block.value) void work.edit({ ...edit, blocks: [selected.value] })
  }
  const toggleLock = () => act({ kind: block.value?.locked ? 'unlock' : 'lock' })
  const toggleMute = () => act({ kind: block.value?.muted ? 'unmute' : 'mute' })
  const silence = () => act({ kind: 'makeRest' })
  const roll = () => act({ kind: 'reroll', seed: dice() })
  const rollBar = () => void work.edit({ kind: 'reroll', bar: bar.value, bars: 1, seed: dice() })

  const move = (index: number, ticks: number) => change(index, { kind: 'move', ticks })
  const stretch = (index: number, ticks: number) => change(index, { kind: 'stretch', ticks })
  /** Edits a block that may have another number afterwards: it stays chosen. */
  async function change(index: number, edit: ChorusEdit) {
    await work.edit({ ...edit, blocks: [index] })
    if (!shown.value || shown.value.block < 0) return
    selected.value = shown.value.block
    follow(selected.value)
  }
  /** Gives a block the keyboard. */
  function follow(index: number) {
    void nextTick(() => document.querySelector<SVGElement>(`[data-block="${index}"]`)?.focus())
  }
  function walk(by: number) {
    const all = shown.value?.blocks ?? []
    if (!all.length) return
    const next = ((selected.value ?? (by > 0 ? -1 : 0)) + by + all.length) % all.length
    selected.value = next
    goToTick(all[next]?.start ?? 0)
    follow(next)
  }

  // What is put somewhere is to fit the chord there, and the position.
  const over = computed(() => chords.value.findLast((c) => c.tick <= Math.max(here(), 0))?.chord)
  const { answer: fitting } = useAnswer(
    () => {
      const position = view.position.value?.id
      if (!tune.music || !position || !over.value || !onLine()) return undefined
      return { chart: tune.music, hands: tune.hands, position, fits: over.value, here: true }
    },
    (body, signal) => answer(client.POST('/api/licks/find', { body, signal })),
  )
  /** The licks that fit there; all of them where none does. */
  const lickOptions = computed(() => {
    const fit = new Set(fitting.value?.found.map((f) => f.id))
    const some = licks.readable.filter((l) => fit.has(l.id))
    return (some.length ? some : licks.readable).map((l) => ({
      ...{ value: String(l.id), text: l.lick.name, ownName: true },
    }))
  })
  function swap(id: string) {
    const lick = licks.readable.find((l) => String(l.id) === id)?.lick
    if (!lick) return
    if (block.value && block.value.kind !== 'rest') act({ kind: 'swapLick', lick })
    else void work.edit({ kind: 'addBlock', blockKind: 'lick', tick: here(), lick })
  }
  function swapNext() {
    const all = lickOptions.value
    const now = all.findIndex((l) => l.text === block.value?.name)
    const next = all[(now + 1) % Math.max(all.length, 1)]
    if (next) swap(next.value)
  }
  const addBlock = (blockKind: string) =>
    void work.edit({ kind: 'addBlock', blockKind, tick: here(), ticks: shown.value?.tab.beatTicks })

  function toggleWriting() {
    if (selected.value !== undefined) writing.value = writing.value === undefined ? selected.value : undefined
  }
  /**
   * Puts notes into the block that is being written now, and follows it to where it then is.
   * A note that is still on its way when the writing has ended, or when another chorus is
   * looked at, comes into its block all the same.
   */
  function notesWriter() {
    const edit = work.editor()
    let index = writing.value ?? 0
    return async (notes: LickEvent[], label: string) => {
      const blocks = await edit({ kind: 'writeNotes', blocks: [index], notes }, label)
      const first = notes[0]?.tick ?? 0
      const holds = (b: Block) => b.start <= first && first < b.start + b.ticks && b.kind !== 'rest'
      const now = blocks?.findIndex(holds) ?? -1
      if (now < 0) return
      if (writing.value === index) writing.value = now
      index = now
    }
  }

  return {
    ...{ selected, block, writing, lickOptions, layable },
    ...{ toggleLock, toggleMute, silence, roll, rollBar, move, stretch, walk },
    ...{ swap, swapNext, addBlock, toggleWriting, notesWriter },
  }
}

export type BlockWork = ReturnType<typeof useBlocks>
