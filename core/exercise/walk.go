package exercise

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/pitch"
)

// walker is where a walk stands.
type walker struct {
	// up is 1 on the way up, -1 on the way down; cells counts those walked.
	up, cells int
	// last is the pitch the present cell began on, heard the last one played; none
	// before the first.
	last, heard pitch.MIDI
}

// walk writes so many notes over one chord. The walk goes on from where the chord
// before left it, the same way, and turns at the ends of the position.
func (q Sequence) walk(w *walker, c harmony.Chord, count int) ([]neck.Placed, error) {
	ladder, err := q.ladder(c)
	if err != nil {
		return nil, err
	}
	offsets := q.figure()
	widest := slices.Max(offsets)
	if widest >= len(ladder) {
		return nil, &chart.FieldError{Field: "figure", Detail: fmt.Sprintf("the %s of %s have %d tones in this position, too few for %s; one after another fits",
			q.Tones, c.Symbol(), len(ladder), q.Figure)}
	}
	at := w.enter(ladder)
	notes := make([]neck.Placed, 0, count)
	for len(notes) < count {
		cell := slices.Clone(offsets)
		if q.Order == "reversed" || q.Order == "alternating" && w.cells%2 == 1 {
			slices.Reverse(cell)
		}
		if last := at + w.up*widest; last < 0 || last >= len(ladder) {
			// The cell would leave the position: turn on the last tone, but do not
			// strike it twice.
			w.up = -w.up
			at = 0
			if w.up < 0 {
				at = len(ladder) - 1
			}
			if ladder[at+w.up*cell[0]].Pitch == w.heard && widest+1 < len(ladder) {
				at += w.up
			}
		}
		for _, offset := range cell {
			if len(notes) < count {
				notes = append(notes, ladder[at+w.up*offset])
				w.heard = notes[len(notes)-1].Pitch
			}
		}
		w.last = ladder[at].Pitch
		at += w.up
		w.cells++
	}
	return notes, nil
}

// enter is the rung to go on from: the next one past where the walk stands, in
// its direction; where there is none the walk turns.
func (w *walker) enter(ladder []neck.Placed) int {
	if w.last == 0 {
		// A walk begins on the lowest root, or where the position has none on the
		// lowest tone.
		return max(slices.IndexFunc(ladder, func(p neck.Placed) bool { return p.Degree.Number == 1 }), 0)
	}
	beyond := func(p neck.Placed) bool {
		return (p.Pitch > w.last) == (w.up > 0) && p.Pitch != w.last && p.Pitch != w.heard
	}
	for range 2 {
		if w.up > 0 {
			if n := slices.IndexFunc(ladder, beyond); n >= 0 {
				return n
			}
		}
		for n := len(ladder) - 1; n >= 0 && w.up < 0; n-- {
			if beyond(ladder[n]) {
				return n
			}
		}
		w.up = -w.up
	}
	return 0
}
