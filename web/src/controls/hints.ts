import { ref } from 'vue'

/** What each step is for and what to do first, for who sees it the first time. */
export const hints: Record<string, string> = {
  chart:
    'The chart is the tune: its bars and chords. Press a bar and type a chord, or take another form or key beside it; everything else follows what stands here.',
  map: 'The map shows where the tones of one chord lie under your hand. Press a bar of the form above for its chord, [ and ] for other positions, and play what you see from the lowest string up.',
  change:
    'Here one chord gives way to the next: hollow notes leave, filled ones arrive. Take the first way in the list, hear it, and play its last note as the chord comes.',
  licks:
    'A lick from the shelf is led into a note of the next chord. Press a lick, hear it, then press another note to land on, or write a lick of your own.',
  solo: 'A whole chorus is planned from your licks, with a chord tone where each chord arrives. Press any note to read why it is there, and drop the band to hear whether it still says the chords.',
  play: 'The band plays, and the next chord and the note to land on stand large. Press play, step back, and play; the loop, the speed and the parts of the band are below.',
  practice:
    'Cards, licks and tempos that are due stand in a plan for today. Space begins it and goes on from block to block; answers are asked again when they are nearly forgotten.',
  exercise:
    'An exercise walks one figure through all chords of the tune in one position. Choose what is walked and how, hear it, and play it slowly first.',
  takes:
    'Record yourself over the band, with headphones, or open a file: then read which notes you landed on, how late you were, and what to mend first. Nothing leaves this machine.',
}

const on = 'undaris.hints'
const away = 'undaris.hints.away'

/** Whether hints are shown: they are from a first visit on, until they are put away. */
export const hintsOn = ref(localStorage.getItem(on) === 'yes')
export const putAway = ref<string[]>((localStorage.getItem(away) ?? '').split(' ').filter(Boolean))

export function showHints(shown: boolean) {
  hintsOn.value = shown
  localStorage.setItem(on, shown ? 'yes' : 'no')
  if (shown) keepAway([])
}
export const putHintAway = (step: string) => keepAway([...putAway.value, step])

function keepAway(steps: string[]) {
  putAway.value = steps
  localStorage.setItem(away, steps.join(' '))
}
