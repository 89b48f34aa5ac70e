import { computed, onBeforeUnmount, reactive, ref } from 'vue'
import type { Problem } from '../../api/client'
import { mended } from '../../controls/mended'
import { useTune } from '../../document/tune'
import { isGone, wasEdited } from '../../document/unsaved'

/** What was typed into a bar and could not be read, with texts that could. */
export interface Refusal {
  text: string
  detail: string
  nearest: { symbol: string; text: string }[]
}

/** What was typed into the bars of a tune and is not in it yet, or could not be read: it stays when the step is left. */
interface Written {
  pending: Map<number, string>
  refusals: Map<number, Refusal>
}
const written = new Map<number, Written>()
function writtenOf(id: number): Written {
  const known = written.get(id) ?? { pending: reactive(new Map()), refusals: reactive(new Map()) }
  written.set(id, known)
  return known
}

/**
 * Writing into bars. What is typed shows at once and is computed behind; a text
 * that cannot be read stays with its bar until it is mended.
 */
export function useWriting() {
  const tune = useTune()
  /** The bar that is being written, from 0, and its text so far. */
  const bar = ref<number>()
  const draft = ref('')
  const { pending, refusals } = writtenOf(tune.id)
  /** Typed text counts as what is not saved, until it is in the chart; leaving the page sends it off. */
  const typed = {
    stays: true,
    state: computed(() =>
      bar.value !== undefined && draft.value.trim() !== textOf(bar.value)
        ? ('saving' as const)
        : ('saved' as const),
    ),
    settled: async () => {
      commit()
      return tune.settled()
    },
  }
  wasEdited(typed)
  onBeforeUnmount(() => {
    commit()
    isGone(typed)
  })

  /** The text of a bar as it stands, which in one that could not be read is what the file has. */
  function textOf(index: number) {
    const written = tune.read?.bars[index]
    return (written?.unread || written?.text) ?? ''
  }

  function begin(index: number, text?: string) {
    bar.value = index
    draft.value = text ?? refusals.get(index)?.text ?? textOf(index)
  }

  function cancel() {
    if (bar.value !== undefined) refusals.delete(bar.value)
    bar.value = undefined
  }

  /** Ends the writing and sends off what was typed. */
  function commit() {
    const index = bar.value
    if (index === undefined) return
    bar.value = undefined
    const text = draft.value.trim()
    if (text === textOf(index)) refusals.delete(index)
    else void write(index, text)
  }

  async function write(index: number, text: string) {
    pending.set(index, text || 'N.C.')
    refusals.delete(index)
    const refused = await tune.attempt({ write: { bar: index + 1, text } })
    pending.delete(index)
    if (refused) refusals.set(index, refusalOf(text, refused))
  }

  /** Puts a chord into a bar, in the place of what is there or beside it. */
  function put(index: number, text: string, beside: boolean) {
    const there = beside ? textOf(index) : ''
    return write(index, there ? `${there} ${text}` : text)
  }

  return { bar, draft, pending, refusals, begin, cancel, commit, write, put }
}

function refusalOf(text: string, refused: Problem): Refusal {
  const fault = refused.faults[0]
  return {
    text,
    detail: refused.message,
    nearest: (fault?.nearest ?? []).map((symbol) => ({
      symbol,
      text: mended(text, fault?.column ?? 1, fault?.symbol ?? '', symbol),
    })),
  }
}
