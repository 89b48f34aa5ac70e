package neck

import "undaris/core/harmony"

// Recurrence is a chord that makes the same shape as another, at its own place.
type Recurrence struct {
	Chord harmony.Chord
	At    Position
}

// Recurrences lists where the form that a chord makes in a window comes back
// among the chords of a tune: only five shapes exist, so every chord with the
// same tones over its root has it at its own places (common teaching). The place
// where the chord itself lies in the window is left out.
func Recurrences(i Instrument, c harmony.Chord, w Window, tune []harmony.Chord) []Recurrence {
	found := []Recurrence{}
	if !i.HasNamedForms() {
		return shifted(i, c, w, tune)
	}
	form := FormAt(i, c.Root.Class(), w)
	for _, other := range tune {
		if other.Quality != c.Quality {
			continue
		}
		for _, place := range Positions(i, other.Root.Class()) {
			here := other.Same(c) && place.Core <= w.CoreEnd && place.CoreEnd >= w.Core
			if place.Form == form && !here {
				found = append(found, Recurrence{Chord: other, At: place})
			}
		}
	}
	return found
}

// shifted is Recurrences where no forms lie: in any tuning the same shape lies as
// many frets on as the roots are apart.
func shifted(i Instrument, c harmony.Chord, w Window, tune []harmony.Chord) []Recurrence {
	found := []Recurrence{}
	for _, other := range tune {
		if other.Quality != c.Quality {
			continue
		}
		apart := other.Root.Class().Above(c.Root.Class())
		for core := (w.Core + apart) % 12; core+coreFrets-1 <= i.Frets; core += 12 {
			here := other.Same(c) && core <= w.CoreEnd && core+coreFrets-1 >= w.Core
			// Open strings do not move: a shape that uses fret 0 has no like.
			if !here && (core > 0) == (w.Core > 0) {
				found = append(found, Recurrence{Chord: other, At: Position{Window: i.WindowFrom(core)}})
			}
		}
	}
	return found
}
