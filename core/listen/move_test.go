package listen

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// curveOf is a pitch for each frame of so many.
func curveOf(frames int, pitch func(seconds float64) float64) []float64 {
	curve := make([]float64, frames)
	for n := range curve {
		curve[n] = pitch(float64(n) * hopSeconds)
	}
	return curve
}

// From fret to fret the pitch is level on either side; a wide vibrato and a string that is let go are no slurs.
func TestMovesOfACurve(t *testing.T) {
	step := func(at, semitones float64) func(float64) float64 {
		return func(s float64) float64 {
			if s < at {
				return 60
			}
			return 60 + semitones
		}
	}
	vibrato := func(s float64) float64 { return 76 + 0.55*math.Sin(2*math.Pi*6.9*s) }
	release := func(s float64) float64 { return 60 + 3.2*(0.5+0.5*math.Cos(math.Pi*math.Min(1, s/0.15))) }
	slide := func(s float64) float64 { return 60 + math.Floor(math.Max(0, math.Min(3, (s-0.1)/0.015))) }
	for name, c := range map[string]struct {
		pitch func(float64) float64
		want  []Attack
	}{
		"a hammer-on": {step(0.1, 2), []Attack{Hammered}}, "a pull-off of a half step": {step(0.1, -1), []Attack{Pulled}},
		"a wide vibrato": {vibrato, nil}, "a bend let go": {release, nil}, "a slide": {slide, []Attack{Slid}},
	} {
		attacks := []Attack(nil)
		for _, m := range moves(curveOf(80, c.pitch)) {
			attacks = append(attacks, m.attack)
		}
		assert.Equal(t, c.want, attacks, name)
	}
}

// A period that a note has together with strings that ring is not its pitch.
func TestUnfoldedPeriods(t *testing.T) {
	heard := []float64{64, 64.1, 52.1, 52.2, 64.3, 45.3, 45.3, 62, 57, 57.1}
	last, folded := heard[0], 0.0
	pitches := []float64{last}
	for _, now := range heard[1:] {
		last, folded = unfolded(last, now, folded)
		pitches = append(pitches, last)
	}
	assert.InDeltaSlice(t, []float64{64, 64.1, 64.1, 64.2, 64.3, 64.3, 64.3, 62, 57, 57.1}, pitches, 1e-9)

	for semitones, want := range map[float64]bool{12: true, 19.02: true, 24: true, 27.86: true, 31.02: true, 7: false, 5: false, 0: false, -12: false, 17: false} {
		assert.Equal(t, want, isPartial(semitones), "%g semitones", semitones)
	}
}
