package exercise

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// spreads are the figures of a spread triad, by the numbers of their degrees from
// the lowest note up or, after it, onwards; the 4 is the scale of the chord's, and
// moves to the 3 or the 5 beside it (ours for the order of the notes).
var spreads = []struct {
	name    string
	degrees []int
	// octaves is how far above the root's octave each note lies.
	octaves []int
}{
	{"spread triads", []int{1, 5, 3, 5}, []int{0, 0, 1, 0}},
	{"spread triads with 4-3", []int{1, 5, 4, 3}, []int{0, 0, 1, 1}},
	{"spread triads with 4-5", []int{1, 5, 4, 5}, []int{0, 0, 1, 1}},
}

// spread writes the figure of a spread triad over a chord, as often as there is
// time. It lies in the window, or in the nearest one that has it.
func (q Sequence) spread(c harmony.Chord, degrees, octaves []int, count int) ([]neck.Placed, error) {
	scale, _ := q.Chart.Key.ChordScale(c)
	tones := make([]harmony.Tone, len(degrees))
	for n, number := range degrees {
		tone, ok := numbered(c.Tones(), number)
		if !ok {
			tone, ok = numbered(scale.Tones, number)
		}
		if !ok {
			return nil, &chart.FieldError{Field: "figure", Detail: fmt.Sprintf("%s has no %d to spread", c.Symbol(), number)}
		}
		tones[n] = tone
	}
	placed, ok := q.nearest(tones, octaves)
	if !ok {
		return nil, &chart.FieldError{Field: "figure", Detail: fmt.Sprintf("%s of %s do not lie anywhere on this neck", q.Figure, c.Symbol())}
	}
	if q.Order == "reversed" {
		slices.Reverse(placed)
	}
	notes := make([]neck.Placed, count)
	for n := range notes {
		at := n % len(placed)
		if q.Order == "alternating" && n/len(placed)%2 == 1 {
			at = len(placed) - 1 - at
		}
		notes[n] = placed[at]
	}
	return notes, nil
}

// numbered is the tone with a degree's number; a suspended tone stands for a
// missing third only where the scale of the chord is asked.
func numbered(tones []harmony.Tone, number int) (harmony.Tone, bool) {
	for _, t := range tones {
		if t.Degree.Number == number || t.Degree.Number == number+7 {
			return t, true
		}
	}
	return harmony.Tone{}, false
}

// nearest places the figure in the window, or in the window nearest to it that
// has room for it, at the least cost of fingering.
func (q Sequence) nearest(tones []harmony.Tone, octaves []int) ([]neck.Placed, bool) {
	for away := 0; away <= q.Instrument.Frets; away++ {
		for _, shift := range []int{away, -away} {
			w := q.Window
			w.Core, w.CoreEnd, w.Low, w.High = w.Core+shift, w.CoreEnd+shift, max(w.Low+shift, 0), w.High+shift
			if w.Core < 0 || w.High > q.Instrument.Frets {
				continue
			}
			if placed, ok := q.spreadIn(w, tones, octaves); ok {
				return placed, true
			}
		}
	}
	return nil, false
}

func (q Sequence) spreadIn(w neck.Window, tones []harmony.Tone, octaves []int) ([]neck.Placed, bool) {
	var best []neck.Fingered
	var bestPitches []pitch.MIDI
	bestCost := -1
	root := tones[0].Note.Class()
	for base := q.Instrument.Open[len(q.Instrument.Open)-1]; base < q.Instrument.Open[0]+pitch.MIDI(w.High); base++ {
		if base.Class() != root {
			continue
		}
		wanted := make([]neck.NoteToPlace, len(tones))
		pitches := make([]pitch.MIDI, len(tones))
		for n, t := range tones {
			pitches[n] = base + pitch.MIDI(t.Note.Class().Above(root)+12*octaves[n])
			wanted[n] = neck.NoteToPlace{Pitch: pitches[n]}
		}
		path, cost, err := neck.Finger(q.Instrument, w, wanted)
		if err == nil && (bestCost < 0 || cost < bestCost) {
			best, bestPitches, bestCost = path, pitches, cost
		}
	}
	placed := make([]neck.Placed, len(best))
	for n, f := range best {
		placed[n] = neck.Placed{Tone: tones[n], Pitch: bestPitches[n], Fingered: f}
	}
	return placed, bestCost >= 0
}
