package band

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
	"undaris/core/shortestpath"
)

// Chords sit where a guitar's middle strings sound, E3 to C5.
const (
	lowestVoice  = pitch.MIDI(52)
	highestVoice = pitch.MIDI(72)
	middleVoice  = pitch.MIDI(60)
	widestVoices = 16
)

// mostVoices is how many notes a chord is played with.
const mostVoices = 4

// voiced is which tones of the chord the comping plays: at most four, the root left to the
// bass where there are enough others, and of a large chord the fifth, which says least.
func voiced(c harmony.Chord) []pitch.Class {
	tones := c.Tones()
	if len(tones) > 3 {
		tones = tones[1:]
	}
	if len(tones) > mostVoices {
		kept := []harmony.Tone{}
		for _, tone := range tones {
			if tone.Degree.Number != 5 || tone.Degree.Alter != 0 {
				kept = append(kept, tone)
			}
		}
		tones = kept[:min(mostVoices, len(kept))]
	}
	classes := make([]pitch.Class, len(tones))
	for n, tone := range tones {
		classes[n] = tone.Note.Class()
	}
	return classes
}

// The cost of a voicing, ours: a note that both chords have stays where it is; the others
// move little; the hand stays in the middle and its notes tight together.
const (
	costOfLostNote = 60
	costOfMove     = 4
	costOfSpread   = 1
	costOfDrift    = 1
)

// voiceLead finds a voicing for each of the chords: the shortest path over all of theirs.
func voiceLead(chords []harmony.Chord) [][]pitch.MIDI {
	known := map[string][][]pitch.MIDI{}
	layers := make([][][]pitch.MIDI, len(chords))
	for n, c := range chords {
		symbol := c.Symbol()
		if _, ok := known[symbol]; !ok {
			known[symbol] = voicings(voiced(c))
		}
		layers[n] = known[symbol]
	}
	led := make([][]pitch.MIDI, len(chords))
	chosen, _ := shortestpath.Choose(layers, costOfShape, func(_ int, from, to []pitch.MIDI) int { return costOfMoving(from, to) })
	for n, k := range chosen {
		led[n] = layers[n][k]
	}
	return led
}

// voicings are all ways to play the classes within the register and one hand, each class
// once, lowest note first.
func voicings(classes []pitch.Class) [][]pitch.MIDI {
	all := [][]pitch.MIDI{}
	for from := lowestVoice; from <= highestVoice; from++ {
		// With its lowest note given, a close voicing is one; dropping its second note from the
		// top an octave gives another.
		if !slices.Contains(classes, from.Class()) {
			continue
		}
		tight := []pitch.MIDI{}
		for p := from; p < from+12 && p <= highestVoice; p++ {
			if slices.Contains(classes, p.Class()) {
				tight = append(tight, p)
			}
		}
		if len(tight) < len(classes) {
			continue
		}
		all = append(all, tight)
		if n := len(tight); n >= 3 {
			dropped := append([]pitch.MIDI{tight[n-2] - 12}, tight...)
			dropped = append(dropped[:n-1], dropped[n])
			if dropped[0] >= lowestVoice && dropped[n-1]-dropped[0] <= widestVoices {
				all = append(all, dropped)
			}
		}
	}
	return all
}

func costOfShape(pitches []pitch.MIDI) int {
	middle := (pitches[0] + pitches[len(pitches)-1]) / 2
	return costOfSpread*int(pitches[len(pitches)-1]-pitches[0]) + costOfDrift*int(max(middle-middleVoice, middleVoice-middle))
}

// costOfMoving is what it costs to go from one voicing to another.
func costOfMoving(from, to []pitch.MIDI) int {
	cost := 0
	for _, p := range to {
		nearest := pitch.MIDI(12)
		common := false
		for _, was := range from {
			nearest = min(nearest, max(p-was, was-p))
			common = common || was.Class() == p.Class()
		}
		if common && nearest > 0 {
			cost += costOfLostNote
		}
		cost += costOfMove * int(nearest)
	}
	return cost
}
