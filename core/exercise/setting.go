package exercise

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"undaris/core/chart"
	"undaris/core/neck"
)

// Setting is what an exercise is written out for: the tune, the instrument above its capo, where
// the hand stands, and the comfortable span in millimetres.
type Setting struct {
	Tune       chart.Chart
	Instrument neck.Instrument
	Position   neck.Position
	SpanMM     float64
}

// unknown says that a choice is none of those there are.
func unknown(field, what, name string, all []Choice) error {
	names := []string{}
	for _, c := range all {
		if c.Name != "" {
			names = append(names, c.Name)
		}
	}
	return &chart.FieldError{Field: field, Detail: fmt.Sprintf("%q is not %s; choose one of: %s", name, what, strings.Join(names, "; "))}
}

// contradiction says that two choices do not go together.
func contradiction(field, format string, args ...any) error {
	return &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
}

// isChoice says whether a name is one of the choices; the empty name is the default.
func isChoice[T ~string](all []Choice, name T) bool {
	return name == "" || slices.ContainsFunc(all, func(c Choice) bool { return c.Name == string(name) })
}

// Check returns a *chart.FieldError for the first choice that is none, or that contradicts another
// or the instrument.
func (e Exercise) Check(s Setting) error {
	if err := e.CheckNames(); err != nil {
		return err
	}
	for _, check := range []func(Setting) error{e.checkTones, e.checkWhere, e.checkOrder, e.checkOrnaments, e.checkTime} {
		if err := check(s); err != nil {
			return err
		}
	}
	return nil
}

// CheckNames returns a *chart.FieldError for the first choice that is none of those there are.
func (e Exercise) CheckNames() error {
	for _, c := range []struct {
		field, what string
		name        string
		all         []Choice
	}{
		{"tones", "something to walk", string(e.Tones), Choices.Tones},
		{"over.kind", "something to walk over", string(e.Over.Kind), Choices.Over},
		{"where.kind", "a part of the neck", string(e.Where.Kind), Choices.Where},
		{"order.direction", "a direction", string(e.Order.Direction), Choices.Directions},
		{"order.start", "a start", string(e.Order.Start), Choices.Starts},
		{"order.figure", "a figure", string(e.Order.Figure), Choices.Figures},
		{"order.turn", "a way round", string(e.Order.Turn), Choices.Turns},
		{"into", "a way into the next chord", string(e.Into), Choices.Into},
		{"ornaments.before", "an approach", string(e.Ornaments.Before), Choices.Approaches},
		{"ornaments.tail", "a tail", string(e.Ornaments.Tail), Choices.Tails},
		{"time.pattern", "a way to use the time", string(e.Time.Pattern), Choices.Patterns},
	} {
		if !isChoice(c.all, c.name) {
			return unknown(c.field, c.what, c.name, c.all)
		}
	}
	return nil
}

func (e Exercise) checkTones(Setting) error {
	for n, number := range e.Extensions {
		if number != 9 && number != 11 && number != 13 {
			return contradiction(fmt.Sprintf("extensions[%d]", n), "%d is not an extension; they are 9, 11 and 13", number)
		}
	}
	if len(e.Extensions) > 0 && !e.Tones.TakesExtensions() {
		return contradiction("extensions", "extensions are added to the arpeggio of a chord; %s have none", e.Tones)
	}
	if !slices.Contains([]int{0, 3, 5, 7, 9}, e.Superimposed) {
		return contradiction("superimposed", "an arpeggio is laid on the 3, 5, 7 or 9 of a chord, not on its %d", e.Superimposed)
	}
	return nil
}

func (e Exercise) checkWhere(s Setting) error {
	w, strings := e.Where, len(s.Instrument.Open)
	if low, high := w.strings(s.Instrument); low < 1 || high > strings || low > high {
		return contradiction("where.strings", "strings %d to %d are not on this neck; its strings are 1 to %d, the highest sounding first", w.LowString, w.HighString, strings)
	}
	low, high := w.strings(s.Instrument)
	switch w.Kind {
	case SomeFrets:
		if w.LowFret < 0 || w.HighFret > s.Instrument.Frets || w.LowFret > w.HighFret {
			return contradiction("where.frets", "frets %d to %d are not on this neck; its frets are 0 to %d", w.LowFret, w.HighFret, s.Instrument.Frets)
		}
	case NotesPerString:
		if w.PerString != 0 && (w.PerString < 2 || w.PerString > 4) {
			return contradiction("where.perString", "%d notes a string are not laid out; choose 2, 3 or 4", w.PerString)
		}
	case CellOnStrings:
		if w.PerString < 0 || w.PerString > 3 {
			return contradiction("where.perString", "a cell has 1 to 3 notes on each of its strings, not %d", w.PerString)
		}
		if high-low != 1 {
			return contradiction("where.strings", "a cell lies on two strings beside each other, as 2 and 3; strings %d to %d are %d", low, high, high-low+1)
		}
	}
	if e.Tones.IsStructure() && slices.Contains([]WhereKind{NotesPerString, CellOnStrings, StringPairs}, w.Kind) {
		return contradiction("where.kind", "%s lie on several strings at once, so they are not walked as %s; they are %s or %s", e.Tones, w.Kind, InPosition, AlongStrings)
	}
	if e.Tones.IsStructure() && low == high {
		return contradiction("where.strings", "%s need more than one string; string %d is alone", e.Tones, low)
	}
	return nil
}

// maxFigure is the highest number of a figure, and how many numbers it has at most.
const (
	maxFigure        = 15
	maxFigureNumbers = 24
)

func (e Exercise) checkOrder(Setting) error {
	o := e.Order
	if o.Figure == OwnFigure && (len(o.Numbers) == 0 || len(o.Numbers) > maxFigureNumbers) {
		return contradiction("order.numbers", "a figure has 1 to %d numbers, as in 1 2 3 1", maxFigureNumbers)
	}
	for n, number := range o.Numbers {
		if number < 1 || number > maxFigure {
			return contradiction(fmt.Sprintf("order.numbers[%d]", n), "%d is not a step of the tones; steps are 1 to %d", number, maxFigure)
		}
	}
	bySteps := slices.Contains([]Figure{InThirds, InFourths, InFifths, InSixths}, o.Figure)
	switch {
	case bySteps && e.Tones.IsArpeggio():
		return contradiction("order.figure", "the tones of a chord are a third or more apart already; %s needs a scale or a box: choose %s or %s", o.Figure, TwoUpOneDown, ScaleOfChord)
	case o.Figure == Inversions && !e.Tones.IsArpeggio():
		return contradiction("order.figure", "only chords have inversions; choose chord tones, a triad or an arpeggio")
	case o.Figure != "" && o.Figure != OneAfterAnother && o.Figure != OwnFigure && e.oneShapeAtATime():
		return contradiction("order.figure", "a shape or a cell is played from its lowest note up, or by numbers of its notes; %s does not fit", o.Figure)
	}
	return nil
}

// oneShapeAtATime says whether figures are played within a shape: a cell, or the one structure
// of a chord.
func (e Exercise) oneShapeAtATime() bool {
	return e.Where.Kind == CellOnStrings || e.Tones.isOnePerChord()
}

func (e Exercise) checkOrnaments(Setting) error {
	o := e.Ornaments
	for n, number := range o.To {
		if number < 1 || number > 13 {
			return contradiction(fmt.Sprintf("ornaments.to[%d]", n), "%d is not a degree; degrees are 1 to 13", number)
		}
	}
	several := e.Tones.IsStructure() || e.Where.Kind == CellOnStrings
	switch {
	case several && o.Before != "":
		return contradiction("ornaments.before", "what comes before single tones does not fit structures and cells")
	case several && o.Tail != "":
		return contradiction("ornaments.tail", "a tail ends a line of single tones; it does not fit structures and cells")
	case several && e.Into != "" && e.Into != Directly:
		return contradiction("into", "structures and cells go straight into the next chord")
	case o.Tail != "" && e.Into != "" && e.Into != Directly:
		return contradiction("into", "a tail already ends each chord; go directly into the next one")
	case o.SkipStrings && (several || !slices.Contains([]WhereKind{"", InPosition, NotesPerString}, e.Where.Kind)):
		return contradiction("ornaments.skipStrings", "strings are skipped where every tone has its string: in position, or so many notes a string")
	case e.Time.Pattern != "" && e.Time.Pattern != Through && (several || o.Before != "" || o.Tail != "" || e.Into != "" && e.Into != Directly || o.SkipStrings):
		return contradiction("time.pattern", "%q leads into each chord by itself, with single tones; leave out structures, tails and approaches", e.Time.Pattern)
	}
	return nil
}

func (e Exercise) checkTime(s Setting) error {
	t := e.Time
	if _, err := t.ticks(s.Tune.Meter); err != nil {
		return err
	}
	switch {
	case t.Notes < 0 || t.Notes == 1 || t.Notes > 32:
		return contradiction("time.notes", "a run into a chord has 2 to 32 notes, not %d", t.Notes)
	case t.Accent < 0 || t.Accent > 16:
		return contradiction("time.accent", "every 2nd to 16th note is accented, or none, not every %d", t.Accent)
	case t.Play < 0 || t.Rest < 0 || t.Play > 64 || t.Rest > 64 || t.Rest > 0 && t.Play == 0:
		return contradiction("time.rest", "%d notes played and %d left out make no pattern; play 1 to 64 and leave out 0 to 64", t.Play, t.Rest)
	case t.Subdivision == OncePerChord && e.isBroken():
		return contradiction("time.subdivision", "notes one after the other need more time than one note a chord; choose eighths, or play them together")
	case t.Subdivision == OncePerChord && t.Pattern != "" && t.Pattern != Through:
		return contradiction("time.subdivision", "%q needs more than one note a chord", t.Pattern)
	}
	return nil
}

// ticks is how long a note is in the meter; 0 where one lasts as long as its chord. A subdivision of another
// meter is the nearest that this one has.
func (t Time) ticks(m chart.Meter) (int, error) {
	if t.Subdivision == OncePerChord {
		return 0, nil
	}
	subdivision, err := m.NearestSubdivision(t.Subdivision)
	if err != nil {
		return 0, &chart.FieldError{Field: "time.subdivision", Detail: errors.Unwrap(err).Error() + "; or " + OncePerChord, Cause: err}
	}
	return subdivision.Ticks(m), nil
}
