package document

import (
	"fmt"
	"reflect"

	"undaris/core/neck"
	"undaris/core/solo/chorus"
)

// Transposed is the solo moved along with its tune from one setting to another: its notes
// as solo.Transpose has them, its plans with the positions that follow. What is the same
// in both settings stays as it is, to the note. Its error is a *chart.FieldError where
// the solo cannot be read over the setting it is from.
func (d Solo) Transposed(from, to chorus.PlayContext) (Solo, []chorus.TransposeLoss, error) {
	if SameSetting(from, to) {
		return d, nil, nil
	}
	choruses := make([]chorus.Chorus, len(d.Choruses))
	for n, c := range d.Choruses {
		blocks, err := Blocks(c.Blocks, from.Chart, from.Instrument)
		if err != nil {
			return d, nil, below(fmt.Sprintf("choruses[%d]", n), err)
		}
		choruses[n] = chorus.Chorus{Blocks: blocks}
	}
	moved, conceded := chorus.Transpose(choruses, from, to)
	out := Solo{Name: d.Name, Choruses: make([]Chorus, len(d.Choruses))}
	for n, c := range d.Choruses {
		plan, said := c.Plan.transposed(from, to)
		for _, sentence := range said {
			conceded = append(conceded, chorus.TransposeLoss{Chorus: n, Text: sentence})
		}
		out.Choruses[n] = Chorus{Plan: plan, Stage: c.Stage, Blocks: BlocksOf(moved[n].Blocks)}
	}
	return out, conceded, nil
}

// SameSetting says whether a solo lies the same in both: the same sounding chords in the
// same bars on the same strings.
func SameSetting(from, to chorus.PlayContext) bool {
	return from.Chart.Timeline().SameBars(to.Chart.Timeline()) && from.Interval(to) == 0 &&
		reflect.DeepEqual(from.Instrument.Open, to.Instrument.Open) && from.Instrument.Frets == to.Instrument.Frets
}

// transposed is the plan with its positions followed into another setting, and what of it
// the tune no longer has.
func (d ChorusPlan) transposed(from, to chorus.PlayContext) (ChorusPlan, []string) {
	said := []string{}
	d.Position = followed(d.Position, 0, from, to)
	bars := len(to.Chart.PlayedBars())
	shifts := []Shift(nil)
	for _, s := range d.Shifts {
		if s.Bar > bars {
			said = append(said, fmt.Sprintf("the shift at bar %d is left out: the tune has %d bars now", s.Bar, bars))
			continue
		}
		shifts = append(shifts, Shift{Bar: s.Bar, Position: followed(s.Position, s.Bar-1, from, to)})
	}
	d.Shifts = shifts
	if len(d.Blend) > 1 && len(d.Blend) != bars {
		blend := append([]float64(nil), d.Blend[:min(len(d.Blend), bars)]...)
		for len(blend) < bars {
			blend = append(blend, d.Blend[len(d.Blend)-1])
		}
		d.Blend = blend
	}
	if _, err := to.Chart.Meter.Subdivision(d.Subdivision); err != nil {
		said = append(said, fmt.Sprintf("phrases no longer run in %ss: %s has none", d.Subdivision, to.Chart.Meter))
		d.Subdivision = ""
	}
	return d, said
}

// followed is the name of the position that follows one of a bar, from 0, given by its ID or name, into
// another setting; empty, the default, stays so.
func followed(text string, bar int, from, to chorus.PlayContext) string {
	if text == "" {
		return ""
	}
	return followedIn(text, bar, from, to).Name(neck.Positions(to.Instrument, tonicAt(to.Chart, bar)))
}

// FollowedPosition is the position that follows one, given by its ID or name, into another
// setting. A text that names none is taken for the default.
func FollowedPosition(text string, from, to chorus.PlayContext) neck.Position {
	return followedIn(text, 0, from, to)
}

// followedIn is FollowedPosition for a position of a bar, from 0.
func followedIn(text string, bar int, from, to chorus.PlayContext) neck.Position {
	tonic := tonicAt(from.Chart, bar)
	p, err := neck.FindPosition(from.Instrument, tonic, text)
	if err != nil {
		p, _ = neck.FindPosition(from.Instrument, tonic, "")
	}
	return p.Follow(from.Instrument, tonic, to.Instrument, tonicAt(to.Chart, bar))
}

// Named is the plan with its positions kept by name, which means the same in every key.
func (d ChorusPlan) Named(at chorus.PlayContext) ChorusPlan {
	d.Position = followed(d.Position, 0, at, at)
	shifts := []Shift(nil)
	for _, s := range d.Shifts {
		shifts = append(shifts, Shift{Bar: s.Bar, Position: followed(s.Position, s.Bar-1, at, at)})
	}
	d.Shifts = shifts
	return d
}
