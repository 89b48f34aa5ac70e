package standin

import (
	"fmt"
	"math"

	"undaris/core/chart"
)

// Faults are what the player does not do as it is written. The zero value plays as written.
type Faults struct {
	// Late is how many milliseconds late every note comes, early below 0; Uneven how far notes scatter
	// around that, in the middle; Drift how many milliseconds later each bar comes than the one before.
	Late, Uneven, Drift float64
	// Swing is the ratio of the eighths, 1 to 4; 0 for the chart's.
	Swing float64
	// Flat is how many cents bends fall short, sharp below 0.
	Flat float64
	// Missed and Wrong are the shares of notes that are left out, and that are a half step off, 0 to 1.
	Missed, Wrong float64
	// Soft is how many dB softer than usual the player strikes, 0 to 40.
	Soft float64
	// Seed decides which notes.
	Seed uint64
}

// Check returns a *chart.FieldError for the first fault that is out of bounds.
func (f Faults) Check() error {
	for _, b := range []struct {
		field           string
		value, from, to float64
	}{
		{"late", f.Late, -200, 200}, {"uneven", f.Uneven, 0, 100}, {"drift", f.Drift, -50, 50}, {"flat", f.Flat, -100, 100},
		{"missed", f.Missed, 0, 1}, {"wrong", f.Wrong, 0, 1}, {"soft", f.Soft, 0, 40},
	} {
		if math.IsNaN(b.value) || b.value < b.from || b.value > b.to {
			return &chart.FieldError{Field: b.field, Detail: fmt.Sprintf("%g is not between %g and %g", b.value, b.from, b.to)}
		}
	}
	if f.Swing != 0 && !(f.Swing >= 1 && f.Swing <= 4) {
		return &chart.FieldError{Field: "swing", Detail: fmt.Sprintf("a swing ratio is 1 to 4, or 0 for the chart's; %g is not", f.Swing)}
	}
	return nil
}
