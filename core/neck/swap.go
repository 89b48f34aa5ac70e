package neck

import "undaris/core/harmony"

// Swap is a player's choice to have a tone of a shape at its other place. It
// belongs to the shape, not to one chord: wherever the same quality makes the
// same form, the tone of that degree that would lie on string From lies on To.
type Swap struct {
	// Sign is the chord quality's sign ("7"), Form its form; empty where the
	// strings are tuned so that no forms lie.
	Sign string
	Form Form
	// Degree is the tone's, as it is written.
	Degree   string
	From, To int
}

// PlaceChord lays the tones of a chord, each where the player wants it.
func PlaceChord(i Instrument, w Window, c harmony.Chord, swaps []Swap) Shape {
	shape := PlaceTones(i, w, c.Tones())
	if len(swaps) == 0 {
		return shape
	}
	return shape.Swapped(i, w, c.Quality.Sign, FormAt(i, c.Root.Class(), w), swaps)
}

// Swapped is the shape with the swaps made that are meant for it and that the
// window allows; its fingers are chosen anew. The tones keep their order.
func (s Shape) Swapped(i Instrument, w Window, sign string, form Form, swaps []Swap) Shape {
	tones := append([]Placed{}, s.Tones...)
	changed := false
	for _, swap := range swaps {
		if swap.Sign != sign || swap.Form != form {
			continue
		}
		for n, tone := range s.Tones {
			if tone.Degree.String() != swap.Degree || tone.String != swap.From {
				continue
			}
			for _, other := range tone.Alternatives {
				if other.String == swap.To {
					tones[n].Place = other
					changed = true
				}
			}
		}
	}
	if !changed {
		return s
	}
	swapped := fingeredAgain(i, w, tones)
	swapped.Beyond = s.Beyond
	return swapped
}
