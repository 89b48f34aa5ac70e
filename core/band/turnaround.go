package band

import (
	"math/rand/v2"

	"undaris/core/pitch"
)

// A turnaround follows what is written in the last two bars: the bass walks a note a beat
// from each chord into the next, and where the first of the two bars stays on the tonic the
// chords let an inner line fall under the root: 8 b7 6 b6 and, with the next bar, 5. Both
// are stock figures.

// turnaroundBass is a note a beat over a span.
func turnaroundBass(sp span) []stroke {
	ways := []string{"R", "^3", "^5", "^6"}
	strokes := make([]stroke, sp.beats)
	for beat := range strokes {
		strokes[beat] = stroke{at: beat * twelfths, long: twelfths, text: ways[beat%len(ways)]}
	}
	return strokes
}

// descends says whether the inner line falls over a span: the tonic, for the whole of the
// first bar of a turnaround of four beats, with a perfect fifth, in every style but those
// whose chords would lose their character by it.
func (s score) descends(b bar, sp span) bool {
	if sp.beats != b.meter.Beats() || sp.beats != 4 || b.intensity == light || b.style.keepsFigure {
		return false
	}
	if b.inChorus != s.time.Bars()-introBars || sp.chord.Root.Class() != b.key.Tonic.Class() {
		return false
	}
	_, fifth := sp.chord.Tone(pitch.ClassOf(int(sp.chord.Root.Class()) + 7))
	return fifth
}

// innerLine is the falling line, in semitones below the root, one for each beat.
var innerLine = []pitch.MIDI{12, 2, 3, 4}

// lowestTurnaround keeps the root over the inner line on the upper strings, from C4 up.
const lowestTurnaround = pitch.MIDI(60)

func (s score) descendingLine(b bar, sp span, random *rand.Rand) []Note {
	root := lowestTurnaround + pitch.MIDI(sp.chord.Root.Class().Above(lowestTurnaround.Class()))
	beat := b.meter.BeatTicks()
	notes := []Note{}
	for n, below := range innerLine {
		notes = append(notes, s.strike(b, boogieKind, n == 0, sp.tick+n*beat, beat, []pitch.MIDI{root - below, root}, random)...)
	}
	return notes
}
