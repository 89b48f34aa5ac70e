// Package neck lays tones on the strings and frets of an instrument: where the
// positions of a key lie, where each tone is placed in one, and which finger
// takes it.
package neck

import (
	"math"

	"undaris/core/pitch"
)

// Instrument is a stringed neck.
type Instrument struct {
	Name string
	// Open is the sounding pitch of each open string, string 1 (highest) first.
	Open []pitch.MIDI
	// Frets is how many frets there are.
	Frets int
	// ScaleMM is the scale length in millimetres.
	ScaleMM float64
}

// Standard is a guitar in standard tuning with 22 frets and a 648 mm scale.
func Standard() Instrument {
	return Instrument{Name: "standard", Open: []pitch.MIDI{64, 59, 55, 50, 45, 40}, Frets: 22, ScaleMM: 648}
}

// Place is one string at one fret. String 1 sounds highest; fret 0 is open.
type Place struct {
	String int
	Fret   int
}

// Pitch is what sounds at the place.
func (i Instrument) Pitch(p Place) pitch.MIDI {
	return i.Open[p.String-1] + pitch.MIDI(p.Fret)
}

// StretchMM is the distance in millimetres between two frets: a fret k lies
// L(1 - 2^(-k/12)) from the nut of a string of length L (equal temperament).
func (i Instrument) StretchMM(low, high int) float64 {
	return i.ScaleMM * (math.Exp2(-float64(low)/12) - math.Exp2(-float64(high)/12))
}
