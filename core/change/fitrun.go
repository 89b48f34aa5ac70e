package change

import (
	"fmt"
	"slices"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// TonesBetween is the run of tones from one place to another: both ends, and the tones
// between them that the window has. Both ends must lie in the window, and apart.
func TonesBetween(i neck.Instrument, w neck.Window, tones []harmony.Tone, from, to neck.Place) ([]pitch.MIDI, error) {
	for _, end := range []neck.Place{from, to} {
		if !i.Has(end) || !within(w, end.Fret) {
			return nil, fmt.Errorf("string %d fret %d does not lie on frets %d to %d", end.String, end.Fret, w.Low, w.High)
		}
	}
	if i.Pitch(from) == i.Pitch(to) {
		return nil, fmt.Errorf("the run begins on the pitch it goes to; choose another start")
	}
	run := []pitch.MIDI{i.Pitch(from)}
	low, high := min(i.Pitch(from), i.Pitch(to)), max(i.Pitch(from), i.Pitch(to))
	for _, tone := range neck.PlaceTones(i, w, tones).Tones {
		if tone.Pitch > low && tone.Pitch < high {
			run = append(run, tone.Pitch)
		}
	}
	if i.Pitch(to) < i.Pitch(from) {
		slices.Reverse(run[1:])
	}
	return append(run, i.Pitch(to)), nil
}

// FittedNote is one note of a run that was made to fit its time.
type FittedNote struct {
	Pitch pitch.MIDI
	// Added says that it is a chromatic passing note put in.
	Added bool
}

// FittedRun is a run made to fit a number of notes.
type FittedRun struct {
	Notes []FittedNote
	// Dropped are the notes left out.
	Dropped []pitch.MIDI
	// Missing is how many notes are still wanted, where no gap is left.
	Missing int
}

// FitRun makes a run of pitches fit a number of notes. Missing notes are chromatic
// passing notes a half step before the note they lead to, in gaps of a whole step
// or more: the gap nearest to the goal first, since there they pull, one in each
// gap before a second in any. Notes too many are left out: those that are no chord tones
// over the chord first, from the start on, but never the first or the last (ours).
func FitRun(k harmony.Key, c harmony.Chord, run []pitch.MIDI, notes int) FittedRun {
	f := FittedRun{}
	for _, p := range run {
		f.Notes = append(f.Notes, FittedNote{Pitch: p})
	}
	for len(f.Notes) > max(notes, 2) {
		drop := 1
		for n := 1; n < len(f.Notes)-1; n++ {
			if k.Classify(c, f.Notes[n].Pitch.Class()) != harmony.ChordTone {
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
			if abs(int(after-before)) >= 2 {
				f.Notes = slices.Insert(f.Notes, n, FittedNote{Pitch: after - step, Added: true})
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

// Text what was done to a run of so many notes to fit a time for so many.
func (f FittedRun) Text(between, notes int) string {
	switch {
	case len(f.Dropped) > 0:
		return fmt.Sprintf("%s lie there and there is time for %d: leave out %d", counted(between), notes, len(f.Dropped))
	case f.Missing > 0:
		return fmt.Sprintf("%s lie there and there is time for %d: even with every half step between, %d are missing; start later, or turn back on the way", counted(between), notes, f.Missing)
	case between < notes:
		return fmt.Sprintf("%s lie there and there is time for %d: put in %d", counted(between), notes, notes-between)
	}
	return fmt.Sprintf("%s lie there, as many as there is time for", counted(between))
}
