package exercise

import (
	"errors"
	"fmt"
	"strings"

	"undaris/core/chart"
	"undaris/core/neck"
)

// Nearest is the exercise that is nearest to one that cannot be written: the choice in the way is
// changed, everything else stays. It is nothing where no such change helps.
func (e Exercise) Nearest(s Setting) (Exercise, bool) {
	_, err := e.Write(s)
	var fault *chart.FieldError
	if !errors.As(err, &fault) {
		return Exercise{}, false
	}
	for _, other := range e.alternatives(fault.Field, s) {
		if _, err := other.Write(s); err == nil {
			return other, true
		}
	}
	return Exercise{}, false
}

// alternatives are exercises with another choice in the field at fault, the nearest first.
func (e Exercise) alternatives(field string, s Setting) []Exercise {
	all := []Exercise{}
	add := func(change func(*Exercise)) {
		other := e
		change(&other)
		all = append(all, other)
	}
	group, _, _ := strings.Cut(field, ".")
	switch {
	case field == "where.frets":
		for wider := 0; wider <= s.Instrument.Frets; wider++ {
			add(func(x *Exercise) {
				x.Where.LowFret, x.Where.HighFret = max(min(e.Where.LowFret, e.Where.HighFret)-wider, 0), min(max(e.Where.LowFret, e.Where.HighFret)+wider, s.Instrument.Frets)
			})
		}
	case field == "where.strings":
		e.moreStrings(s, add)
	case field == "where.perString":
		for count := 4; count >= 2; count-- {
			add(func(x *Exercise) { x.Where.PerString = count })
		}
	case field == "order.start":
		add(func(x *Exercise) { x.Order.Start = NearestTone })
	case strings.HasPrefix(field, "order.numbers"):
		add(func(x *Exercise) {
			x.Order.Numbers = nil
			for _, number := range e.Order.Numbers {
				x.Order.Numbers = append(x.Order.Numbers, min(max(number, 1), 3))
			}
		})
	}
	switch group {
	case "where":
		for _, kind := range []WhereKind{InPosition, AlongStrings, WholeNeck} {
			add(func(x *Exercise) { x.Where.Kind = kind })
			add(func(x *Exercise) { x.Where = Where{Kind: kind} })
		}
	case "order":
		for _, figure := range []Figure{TwoUpOneDown, GroupsOfThree, OneAfterAnother} {
			add(func(x *Exercise) { x.Order.Figure, x.Order.Numbers = figure, nil })
		}
		add(func(x *Exercise) { x.Order = Order{} })
	case "tones":
		add(func(x *Exercise) { x.Tones, x.Broken = ChordTones, false })
	case "into":
		add(func(x *Exercise) { x.Into = Directly })
	case "ornaments":
		add(func(x *Exercise) { x.Ornaments = Ornaments{Slurs: e.Ornaments.Slurs, Slides: e.Ornaments.Slides} })
	case "time":
		add(func(x *Exercise) { x.Time = Time{Pattern: e.Time.Pattern} })
		add(func(x *Exercise) { x.Time = Time{} })
	case "over":
		add(func(x *Exercise) { x.Over.From, x.Over.Bars = 0, 0 })
		add(func(x *Exercise) { x.Over = Over{Kind: OneChord} })
	}
	if strings.HasPrefix(field, "extensions") {
		add(func(x *Exercise) { x.Extensions = nil })
	}
	if field == "superimposed" {
		add(func(x *Exercise) { x.Superimposed = 0 })
	}
	return all
}

// moreStrings adds the exercise on more and more strings.
func (e Exercise) moreStrings(s Setting, add func(func(*Exercise))) {
	most := len(s.Instrument.Open)
	low := min(max(min(e.Where.LowString, e.Where.HighString), 1), most)
	high := min(max(e.Where.LowString, e.Where.HighString, low), most)
	if e.Where.Kind == CellOnStrings {
		add(func(x *Exercise) { x.Where.LowString, x.Where.HighString = min(low, most-1), min(low, most-1)+1 })
	}
	for wider := 0; wider < most; wider++ {
		add(func(x *Exercise) {
			x.Where.LowString, x.Where.HighString = max(low-(wider+1)/2, 1), min(high+wider/2, most)
		})
		add(func(x *Exercise) { x.Where.LowString, x.Where.HighString = max(low-wider, 1), min(high+wider, most) })
	}
}

// Easier is a placing within the player's span.
type Easier struct {
	Exercise Exercise
	// Position is where the hand begins; the exercise's own where that is not moved.
	Position neck.Position
	Written  Written
	Text     string
}

// Easier is the nearest placing within the player's span of an exercise that is wider: fewer notes a
// string, or a higher position, where the frets lie closer. It is nothing where the
// exercise is within the span or no such placing is.
func (e Exercise) Easier(s Setting) (Easier, bool) {
	w, err := e.Write(s)
	if err != nil || w.StretchMM <= s.SpanMM {
		return Easier{}, false
	}
	try := func(other Exercise, p neck.Position, text string) (Easier, bool) {
		there := s
		there.Position = p
		w, err := other.Write(there)
		return Easier{Exercise: other, Position: p, Written: w, Text: text}, err == nil && w.StretchMM <= s.SpanMM
	}
	if e.Where.Kind == NotesPerString {
		for count := max(e.Where.PerString, 3) - 1; count >= 2; count-- {
			other := e
			other.Where.PerString = count
			if easier, ok := try(other, s.Position, fmt.Sprintf("%d notes a string", count)); ok {
				return easier, true
			}
		}
	}
	for _, p := range neck.Positions(s.Instrument, s.Tune.Key.Tonic.Class()) {
		if p.Core > s.Position.Core {
			if easier, ok := try(e, p, fmt.Sprintf("higher on the neck, frets %d to %d", p.Core, p.CoreEnd)); ok {
				return easier, true
			}
		}
	}
	return Easier{}, false
}
