package document

import (
	"fmt"
	"slices"

	"undaris/core/chart"
	"undaris/core/take/judge"
)

// Splice says which sound takes the place of which: from At to Until, in seconds of the earlier sound, comes what the
// later one has from From on.
type Splice struct{ At, Until, From float64 }

// notesEarly is how many seconds before a bar line a note may begin and belong to the bar after it: a player who is
// ahead of the band.
const notesEarly = 0.06

// Punched is the take with the bars from one to another, counted from 1 and on through the choruses, as they were
// played in another take of the same tune at the same tempo; and what that means for the sound. Its error is a
// *chart.FieldError.
func (d Take) Punched(again Take, from, to int) (Take, Splice, error) {
	fail := func(field, format string, args ...any) (Take, Splice, error) {
		return d, Splice{}, &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	before, err := d.Order()
	if err != nil {
		return d, Splice{}, err
	}
	after, err := again.Order()
	if err != nil {
		return d, Splice{}, err
	}
	line := before.Chart.Timeline()
	chorus, first := line.Chorus(from - 1)
	last, _ := line.Chorus(to - 1)
	switch {
	case from < 1 || to < from || last != chorus:
		return fail("to", "bars %d to %d are no bars of one chorus", from, to)
	case after.Clock.SecondsPerTick != before.Clock.SecondsPerTick:
		return fail("take.speed", "the take was played at %.0f beats a minute; play the bars again at that tempo, not at %.0f", d.PlayedTempo(), again.PlayedTempo())
	case (d.Sound == nil) != (again.Sound == nil):
		return fail("take.source", "sound and keys cannot be joined: play the bars again through the input that the take was played through")
	case d.Sound != nil && d.Sound.Rate != again.Sound.Rate:
		return fail("take.sound.rate", "the take has %d samples a second and the bars played again have %d: use the same input", d.Sound.Rate, again.Sound.Rate)
	}
	seconds := func(o judge.Order, bar int) float64 {
		return o.Clock.Start + float64(line.Start(bar)-o.Clock.From)*o.Clock.SecondsPerTick
	}
	s := Splice{At: seconds(before, from-1), Until: seconds(before, to), From: seconds(after, first)}
	if s.At < 0 || s.From < 0 {
		return fail("from", "bar %d begins before the sound does", from)
	}
	length := s.Until - s.At
	notes := []TakeNote{}
	for _, n := range d.Notes {
		switch {
		case n.Onset >= s.At-notesEarly && n.Onset < s.Until-notesEarly:
			continue
		case n.Onset < s.At && n.Onset+n.Length > s.At: // it ends where the bars begin
			n.Length = round(s.At-n.Onset, 4)
			n.Curve = n.Curve[:min(len(n.Curve), int(n.Length*curveRate))]
		}
		notes = append(notes, n)
	}
	for _, n := range again.Notes {
		if n.Onset >= s.From-notesEarly && n.Onset < s.From+length-notesEarly {
			n.Onset = round(max(0, n.Onset+s.At-s.From), 4)
			notes = append(notes, n)
		}
	}
	slices.SortStableFunc(notes, func(a, b TakeNote) int {
		switch {
		case a.Onset < b.Onset:
			return -1
		case a.Onset > b.Onset:
			return 1
		}
		return 0
	})
	d.Notes = notes
	remark := fmt.Sprintf("bars %d to %d were played again", from, to)
	if from == to {
		remark = fmt.Sprintf("bar %d was played again", from)
	}
	return d.WithRemarks(remark), s, nil
}

// curveRate is how many values a second the curve of a note has.
const curveRate = 200
