/** A word of the screens, what else it is written as there, and what it means. */
export interface Word {
  word: string
  also?: string[]
  says: string
}

/** The words of the screens that a player may not know, by the alphabet. */
export const words: Word[] = [
  { word: 'approach', also: ['approaches'], says: 'the note or notes that lead into a target' },
  { word: 'arpeggio', also: ['arpeggios'], says: 'the tones of a chord, one after the other' },
  { word: 'arriving', says: 'of two chords at a change, the one that comes' },
  {
    word: 'bar 1',
    says: 'where the tune begins in a recording; the grid against which timing is measured starts there',
  },
  {
    word: 'bend',
    also: ['bends', 'bent'],
    says: 'a note whose string is pushed aside until it sounds higher',
  },
  {
    word: 'blend',
    says: 'how much of a line comes from the box and how much from the chords: 0 is the box alone, 100 chord tones alone',
  },
  {
    word: 'block',
    also: ['blocks'],
    says: 'a part of a chorus, or of a session: one thing with a beginning and an end',
  },
  { word: 'blue', says: 'a blue note: lean on it, bend it or slide it up' },
  { word: 'box', also: ['boxes'], says: 'the pentatonic or blues scale in the present position' },
  {
    word: 'capo',
    says: 'a clamp that shortens all strings: the hand plays in one key and sounds in another',
  },
  {
    word: 'card',
    also: ['cards'],
    says: 'one thing to be asked, which comes again when it is nearly forgotten',
  },
  { word: 'change', also: ['changes'], says: 'the moment one chord gives way to the next' },
  { word: 'chord tone', also: ['chord tones'], says: 'a note of the chord: rest on it' },
  { word: 'chorus', also: ['choruses'], says: 'one time through the form of a tune' },
  { word: 'chromatic', says: 'in half steps, fret by fret' },
  { word: 'coda', says: 'the ending of a tune, which is jumped to' },
  {
    word: 'colour',
    also: ['colours'],
    says: 'a note beside the chord’s that you can rest on: it adds something',
  },
  {
    word: 'count-in',
    also: ['counted in', 'counting in', 'count in'],
    says: 'the beats that are counted before the first bar',
  },
  {
    word: 'degree',
    also: ['degrees'],
    says: 'a note’s place over the root of a chord: R is the root, 3 the third, ♭7 the flat seventh',
  },
  { word: 'double stop', also: ['double stops'], says: 'two notes struck together' },
  { word: 'drill', also: ['drills'], says: 'a kind of question that is asked card by card' },
  {
    word: 'drop the band',
    also: ['without the band', 'heard alone'],
    says: 'hear whether the line alone still says which chord is on',
  },
  { word: 'due', says: 'a card whose time to be asked again has come' },
  { word: 'enclosure', says: 'a target led into from above and below' },
  { word: 'etude', says: 'licks and exercises joined into one piece over a form' },
  { word: 'exercise', also: ['exercises'], says: 'a figure walked through chords, as tab' },
  { word: 'extensions', also: ['extension'], says: 'the 9, 11 and 13 of a chord' },
  {
    word: 'feel',
    also: ['shuffle', 'straight', 'slow 12/8'],
    says: 'how the eighths of a beat lie: even, swung, or three to a beat',
  },
  {
    word: 'figure',
    also: ['figures'],
    says: 'a number about your playing; of an exercise: which steps follow one another',
  },
  { word: 'fine', says: 'where a tune with jumps ends' },
  {
    word: 'form',
    also: ['forms', 'E form', 'A form', 'C form', 'D form', 'G form'],
    says: 'which open chord (C, A, G, E or D) a chord looks like in a position; also the bars of a tune from first to last',
  },
  {
    word: 'ghost',
    also: ['ghost note'],
    says: 'a note hinted at, softer than the others; on the neck: another place for the same tone',
  },
  {
    word: 'guide tones',
    also: ['guide tone'],
    says: 'the 3rd and the 7th of a chord: two notes that say which chord it is',
  },
  { word: 'half step', also: ['half steps'], says: 'the distance of one fret' },
  {
    word: 'hammered',
    also: ['hammer', 'hammer-on', 'hammered up', 'hammered on'],
    says: 'sounded by a finger that comes down, without picking',
  },
  { word: 'held', says: 'a note of a beat and a half or more; at a change: a place that both chords share' },
  {
    word: 'imagined',
    also: ['imagined chord', 'imagined chords'],
    says: 'a chord only you think of; the band plays the written one',
  },
  { word: 'in box', also: ['not in box'], says: 'whether the box has the tone too' },
  { word: 'interval', also: ['intervals'], says: 'the distance between two notes' },
  {
    word: 'land',
    also: ['landing', 'landings', 'lands', 'land on', 'lands on', 'landed'],
    says: 'the note of the arriving chord that a phrase reaches at a change',
  },
  { word: 'leaving', says: 'of two chords at a change, the one that goes' },
  { word: 'lick', also: ['licks'], says: 'a phrase that is kept, with its strings, frets and techniques' },
  { word: 'loop', also: ['looped'], says: 'these bars again and again' },
  { word: 'lost', says: 'shows the box alone, with its chord tones large, to find the way back' },
  { word: 'motif', also: ['motifs'], says: 'a few notes that come again, bent to follow each chord' },
  { word: 'N.C.', also: ['no chord'], says: 'no chord: the band is silent' },
  { word: 'outside', says: 'neither of the chord nor a colour: pass through, never rest' },
  {
    word: 'passing',
    also: ['passing note', 'passing notes'],
    says: 'a note between two others, on no strong beat',
  },
  { word: 'pickup', also: ['pickups'], says: 'notes before bar 1' },
  { word: 'pinned', also: ['pin'], says: 'chosen by you: planning leaves it as it is' },
  {
    word: 'position',
    also: ['positions'],
    says: 'four frets under the four fingers, and one of reach on either side',
  },
  {
    word: 'pulled',
    also: ['pull-off', 'pulled off'],
    says: 'sounded by a finger that leaves the string, without picking',
  },
  { word: 're-roll', says: 'make it up again from another seed' },
  { word: 'release', says: 'a bent string let back down' },
  {
    word: 'rest',
    also: ['rests', 'rests on', 'rests well'],
    says: 'a silence; to rest on a note is to stay on it for a beat or more',
  },
  {
    word: 'roman',
    also: ['numeral', 'numerals'],
    says: 'a chord by its degree in the key: I is home, IV and V the others of a blues',
  },
  { word: 'root', also: ['roots'], says: 'the note a chord is named after' },
  { word: 'routine', says: 'what is played through: stages of choruses with their tempo, key and parts' },
  { word: 'scale of the chord', says: 'the tones of a chord and the notes that join them' },
  {
    word: 'scheme',
    also: ['schemes'],
    says: 'a form of a blues to begin a tune with, as quick change or minor twelve-bar',
  },
  { word: 'segno', says: 'the sign that is jumped back to' },
  { word: 'shape', also: ['shapes'], says: 'how a chord’s tones lie under the hand in one position' },
  { word: 'shell', also: ['shells'], says: 'root, 3rd and 7th alone' },
  {
    word: 'slide',
    also: ['slides'],
    says: 'to a note along the string; on the map: each chord at its own form’s place',
  },
  { word: 'span', says: 'the widest stretch your hand makes with ease' },
  { word: 'stand-in', also: ['simulated player'], says: 'plays any line with chosen faults, with no guitar' },
  { word: 'strong beats', also: ['strong beat'], says: 'beats 1 and 3 of 4/4, and so for each meter' },
  { word: 'sus', says: 'suspends: it wants to move a step to a chord tone' },
  { word: 'swing', also: ['swung'], says: 'eighths of which the first is longer' },
  { word: 'take', also: ['takes'], says: 'your own playing, recorded over the band' },
  { word: 'target', also: ['targets'], says: 'the note that is meant for a landing' },
  {
    word: 'third',
    also: ['thirds', 'thirds first'],
    says: 'the tone that makes a chord major or minor; thirds first: aim at it before other tones',
  },
  { word: 'transpose', also: ['transposed'], says: 'to another key, every note by the same distance' },
  { word: 'triplet', also: ['triplets'], says: 'three notes in the time of two' },
  {
    word: 'turnaround',
    also: ['turnarounds'],
    says: 'the last bars of a form, which lead back to its first',
  },
  { word: 'vamp', says: 'one chord going round' },
  { word: 'variants', also: ['variant'], says: 'the same lick in another octave, key or position' },
  { word: 'verdict', says: 'what the notes of a line or take say, with the figures they come from' },
  { word: 'vibrato', also: ['shake'], says: 'a held note whose pitch is rocked up and back' },
  {
    word: 'voicing',
    also: ['voicings', 'voice', 'voices'],
    says: 'which tones of a chord sound, and in which order from the bottom; a voice is one of them from chord to chord',
  },
]

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** Whether a text uses a word, in any of its forms, as a word of its own. */
export function uses(text: string, { word, also = [] }: Word): boolean {
  const forms = [word, ...also].map(escaped).join('|')
  return new RegExp(`(^|[^\\p{L}])(${forms})($|[^\\p{L}])`, 'iu').test(text)
}
