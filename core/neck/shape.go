package neck

import (
	"fmt"
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// Placed is a tone at the place and finger chosen for it.
type Placed struct {
	harmony.Tone
	Pitch pitch.MIDI
	Fingered
	// Reach is true outside the four core frets.
	Reach bool
	// Alternatives are the other places in the window that sound the same pitch.
	Alternatives []Place
}

// Shape is a set of tones laid out in one window, from the lowest pitch up.
type Shape struct {
	Tones []Placed
	// Beyond are tones that could be had only by reaching back below the core:
	// in the window, but left out of the shape.
	Beyond []Placed
	// StretchMM is the distance from the lowest to the highest fretted fret.
	StretchMM float64
}

// PlaceTones places every one of the tones that the window holds, each sounding pitch
// once. A pitch that can be had only at the reach below the core is set aside
// in Beyond: the hand reaches up for a tone that the core lacks, and back only
// for another way to play one it has (our choice, so that the first box and
// the chord shapes around it stay as players know them).
func PlaceTones(i Instrument, w Window, tones []harmony.Tone) Shape {
	var byClass [12]*harmony.Tone
	for n := range tones {
		byClass[tones[n].Note.Class()] = &tones[n]
	}
	var wanted []NoteToPlace
	var choices [][]Place // where each of the wanted can be had
	shape := Shape{}
	low, high := i.span(w)
	for p := low; p <= high; p++ {
		tone := byClass[p.Class()]
		if tone == nil {
			continue
		}
		places := i.PlacesOf(w, p)
		if len(places) == 0 {
			continue
		}
		if onlyBelow(w, places) {
			shape.Beyond = append(shape.Beyond, Placed{
				Tone: *tone, Pitch: p, Reach: true,
				Fingered: Fingered{Place: places[0], Finger: 1}, Alternatives: places[1:],
			})
			continue
		}
		wanted = append(wanted, NoteToPlace{Pitch: p})
		choices = append(choices, places)
	}
	fingering, _, err := Finger(i, w, wanted)
	if err != nil {
		panic("a pitch found in the window has a place there: " + err.Error())
	}
	shape.Tones = make([]Placed, len(wanted))
	lowest, highest := i.Frets+1, 0
	for n, f := range fingering {
		p := wanted[n].Pitch
		shape.Tones[n] = Placed{
			Tone: *byClass[p.Class()], Pitch: p, Fingered: f,
			Reach: w.IsReach(f.Fret), Alternatives: slices.DeleteFunc(choices[n], func(place Place) bool { return place == f.Place }),
		}
		if f.Fret > 0 {
			lowest, highest = min(lowest, f.Fret), max(highest, f.Fret)
		}
	}
	if highest >= lowest {
		shape.StretchMM = i.StretchMM(lowest, highest)
	}
	return shape
}

// span is the lowest and highest pitch within the window.
func (i Instrument) span(w Window) (low, high pitch.MIDI) {
	low, high = i.Open[0], i.Open[0]
	for _, open := range i.Open {
		low, high = min(low, open), max(high, open)
	}
	return low + pitch.MIDI(w.Low), high + pitch.MIDI(w.High)
}

// PlacesOf lists where the pitch can be had in the window, string 1 first.
func (i Instrument) PlacesOf(w Window, p pitch.MIDI) []Place {
	var found []Place
	for s, open := range i.Open {
		if fret := int(p - open); fret >= w.Low && fret <= w.High {
			found = append(found, Place{String: s + 1, Fret: fret})
		}
	}
	return found
}

func onlyBelow(w Window, places []Place) bool {
	for _, place := range places {
		if place.Fret >= w.Core {
			return false
		}
	}
	return true
}

// Tone finds the placed tone at a place of the shape.
func (s Shape) Tone(at Place) (Placed, bool) {
	for _, tone := range s.Tones {
		if tone.Place == at {
			return tone, true
		}
	}
	return Placed{}, false
}

// ComfortableSpanMM is the stretch that a hand is asked for without a word,
// unless the player has set another.
const ComfortableSpanMM = 100

// Caution is a plain word where the shape is wider than a span, or nothing. It is
// no medical advice. Tones of an arpeggio are played one after the other, so the
// hand may shift instead of stretching.
func (s Shape) Caution(spanMM float64) string {
	if s.StretchMM <= spanMM {
		return ""
	}
	return fmt.Sprintf("%.0f mm from end to end, past your %.0f: warm up first, shift rather than stretch, stop at any pain.", s.StretchMM, spanMM)
}
