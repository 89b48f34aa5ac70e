package change

import (
	"slices"

	"undaris/core/harmony"
	"undaris/core/pitch"
)

// FilledNote is one note of a run that was made to fit its time.
type FilledNote struct {
	Pitch pitch.MIDI
	// Added says that it is a chromatic passing note put in.
	Added bool
}

// Filled is a run made to fit a number of notes.
type Filled struct {
	Notes []FilledNote
	// Dropped are the notes left out.
	Dropped []pitch.MIDI
	// Missing is how many notes are still wanted, where no gap is left.
	Missing int
}

// Fill makes a run of pitches fit a number of notes. Missing notes are chromatic
// passing notes a half step before the note they lead to, in gaps of a whole step
// or more: the gap nearest to the goal first, since there they pull, one in each
// gap before a second in any. Notes too many are left out: those that are not home
// over the chord first, from the start on, but never the first or the last (ours).
func Fill(k harmony.Key, c harmony.Chord, run []pitch.MIDI, notes int) Filled {
	f := Filled{}
	for _, p := range run {
		f.Notes = append(f.Notes, FilledNote{Pitch: p})
	}
	for len(f.Notes) > max(notes, 2) {
		drop := 1
		for n := 1; n < len(f.Notes)-1; n++ {
			if k.Classify(c, f.Notes[n].Pitch.Class()) != harmony.Home {
				drop = n
				break
			}
		}
		f.Dropped = append(f.Dropped, f.Notes[drop].Pitch)
		f.Notes = slices.Delete(f.Notes, drop, drop+1)
	}
	for len(f.Notes) < notes {
		// Each round puts one note in each gap that has room, the last gap first.
		filled := false
		for n := len(f.Notes) - 1; n > 0 && len(f.Notes) < notes; n-- {
			before, after := f.Notes[n-1].Pitch, f.Notes[n].Pitch
			step := pitch.MIDI(1)
			if after < before {
				step = -1
			}
			if far(int(after-before)) >= 2 {
				f.Notes = slices.Insert(f.Notes, n, FilledNote{Pitch: after - step, Added: true})
				filled = true
			}
		}
		if !filled {
			break
		}
	}
	f.Missing = max(notes-len(f.Notes), 0)
	return f
}
