package routine

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/band"
	"undaris/core/chart"
	"undaris/core/harmony"
)

// View is what the stage shows while a segment is played.
type View string

// The views, from the most that is shown to nothing. The empty one is what the player has
// chosen.
const (
	PlayersView View = ""
	Tones       View = "tones"
	Scale       View = "scale"
	AllNotes    View = "all"
	Roots       View = "roots"
	LandingOnly View = "landing"
	Names       View = "names"
	FormOnly    View = "form"
	Nothing     View = "nothing"
)

// Views lists them.
var Views = []View{Tones, Scale, AllNotes, Roots, LandingOnly, Names, FormOnly, Nothing}

// KeyStep is how the key changes when a segment is played again.
type KeyStep string

// The orders of keys: by fourths as they follow one another in most tunes, by half steps
// as the hand slides, or every key once at random.
const (
	SameKey    KeyStep = ""
	Fourths    KeyStep = "fourths"
	HalfSteps  KeyStep = "half steps"
	RandomKeys KeyStep = "random"
)

// KeySteps lists them.
var KeySteps = []KeyStep{Fourths, HalfSteps, RandomKeys}

// Segment is one stretch of a routine.
type Segment struct {
	Name string
	// One of Choruses, Bars and Minutes says how long it is; none means until the player asks
	// for the next one.
	Choruses, Bars int
	Minutes        float64
	// From is the first bar, from 0, where Bars are played; Chord the chord of the tune that a
	// vamp stays on, counted from 1 in the order they first sound, 0 for the tune itself.
	From, Chord int
	// Tempo is in counted beats a minute, 0 for that of the segment before; Key a tonic,
	// empty for that of the segment before.
	Tempo int
	Key   string
	// Silent parts rest.
	Silent   []band.Part
	StopTime bool
	Click    band.ClickPattern
	View     View
	// Aim is the degree that is landed on at every change, by its number (1, 3, 5, 7), 0 for
	// the player's target strategy; it is sounded before each change.
	Aim int
	// TradeBars: the line plays so many bars and rests as many for the player, 0 for no trading.
	TradeBars int
	// Licks has licks of the library played where the line plays.
	Licks bool
	// Exercise is the id of the exercise that the line plays, 0 for none.
	Exercise uint
	End      End
}

// End is what changes when the segment has been played: then it is played again.
type End struct {
	// TempoBy is added to the tempo each time until TempoTo is reached.
	TempoBy, TempoTo int
	KeyBy            KeyStep
	// Again is how many times more it is played; with TempoTo as often as it takes.
	Again int
	// Wait has the segment go on, as it was the last time, until the player asks for the next.
	Wait bool
}

// Routine is what is played through.
type Routine struct {
	Name     string
	Segments []Segment
	// Seed decides what is random.
	Seed uint64
}

// Bounds of a routine.
const (
	MaxName     = 60
	MaxSegments = 64
	MaxChoruses = 200
	MaxBars     = chart.MaxBars
	MaxMinutes  = 120
	MaxAgain    = 99
)

// aims are the degrees that can be aimed at.
var aims = []int{0, 1, 3, 5, 7}

// Check returns a *chart.FieldError for the first thing that cannot be played over the chart.
func (r Routine) Check(c chart.Chart) error {
	if name := strings.TrimSpace(r.Name); name == "" || len([]rune(name)) > MaxName {
		return &chart.FieldError{Field: "name", Detail: fmt.Sprintf("a routine's name has 1 to %d characters", MaxName)}
	}
	if len(r.Segments) == 0 || len(r.Segments) > MaxSegments {
		return &chart.FieldError{Field: "segments", Detail: fmt.Sprintf("a routine has 1 to %d segments, not %d", MaxSegments, len(r.Segments))}
	}
	tempo := c.Tempo
	for n, s := range r.Segments {
		if s.Tempo > 0 {
			tempo = s.Tempo
		}
		if err := s.check(c, tempo); err != nil {
			err.Field = fmt.Sprintf("segments[%d].%s", n, err.Field)
			err.Detail = fmt.Sprintf("segment %d, %q: %s", n+1, s.Name, err.Detail)
			return err
		}
		tempo = s.tempoAt(tempo, s.times(tempo)-1)
	}
	return nil
}

func (s Segment) check(c chart.Chart, tempo int) *chart.FieldError {
	fail := func(field, format string, args ...any) *chart.FieldError {
		return &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	bars := c.Timeline().Bars()
	tempos := func(t int) bool { return t >= chart.MinTempo && t <= chart.MaxTempo }
	switch {
	case len([]rune(s.Name)) > MaxName:
		return fail("name", "its name has at most %d characters", MaxName)
	case s.Choruses < 0 || s.Choruses > MaxChoruses:
		return fail("choruses", "a segment has up to %d choruses, not %d", MaxChoruses, s.Choruses)
	case s.Bars < 0 || s.Bars > MaxBars:
		return fail("bars", "a segment has up to %d bars, not %d", MaxBars, s.Bars)
	case !(s.Minutes >= 0 && s.Minutes <= MaxMinutes):
		return fail("minutes", "a segment lasts up to %d minutes, not %g", MaxMinutes, s.Minutes)
	case set(s.Choruses > 0, s.Bars > 0, s.Minutes > 0) > 1:
		return fail("choruses", "its length is given twice; choose choruses, bars or minutes")
	case s.From < 0 || s.From >= bars:
		return fail("from", "bar %d is not in the tune; its bars are 1 to %d", s.From+1, bars)
	case s.From > 0 && s.Bars == 0:
		return fail("bars", "it begins at bar %d: say how many bars it has", s.From+1)
	case s.Chord < 0 || s.Chord > len(c.Chords()):
		return fail("chord", "the tune has no chord %d; it has %d", s.Chord, len(c.Chords()))
	case s.Tempo != 0 && !tempos(s.Tempo):
		return fail("tempo", "%d is out of range; a tempo is %d to %d beats a minute", s.Tempo, chart.MinTempo, chart.MaxTempo)
	case s.End.TempoTo != 0 && !tempos(s.End.TempoTo):
		return fail("end.tempoTo", "it would go to %d; a tempo is %d to %d beats a minute", s.End.TempoTo, chart.MinTempo, chart.MaxTempo)
	case s.End.TempoTo != 0 && (s.End.TempoBy == 0 || (s.End.TempoBy > 0) != (s.End.TempoTo >= tempo)):
		return fail("end.tempoBy", "by steps of %d it never gets from %d to %d", s.End.TempoBy, tempo, s.End.TempoTo)
	case s.End.TempoTo == 0 && s.End.TempoBy != 0 && !tempos(tempo+s.End.TempoBy*s.End.Again):
		return fail("end.again", "it would go to %d; a tempo is %d to %d beats a minute", tempo+s.End.TempoBy*s.End.Again, chart.MinTempo, chart.MaxTempo)
	case s.End.Again < 0 || s.End.Again > MaxAgain:
		return fail("end.again", "a segment is played again up to %d times, not %d", MaxAgain, s.End.Again)
	case !slices.Contains(aims, s.Aim):
		return fail("aim", "what is aimed at is 1, 3, 5 or 7, or 0 for the player's strategy")
	case s.TradeBars < 0 || s.TradeBars > bars:
		return fail("tradeBars", "%d bars are longer than the tune; 1 to %d can be traded", s.TradeBars, bars)
	case s.View != PlayersView && !slices.Contains(Views, s.View):
		return fail("view", "%q cannot be shown; there are %s", s.View, listed(Views))
	case s.End.KeyBy != SameKey && !slices.Contains(KeySteps, s.End.KeyBy):
		return fail("end.keyBy", "%q is no order of keys; there are %s", s.End.KeyBy, listed(KeySteps))
	}
	if s.Key != "" {
		if _, err := harmony.ParseKey(s.Key, c.Key.Mode); err != nil {
			return fail("key", "%s", err)
		}
	}
	for _, part := range s.Silent {
		if !slices.Contains(band.Parts, part) {
			return fail("silent", "%q is no part of the band; there are %s", part, listed(band.Parts))
		}
	}
	if err := s.Click.Check(); err != nil {
		return fail("click", "%s", err)
	}
	return nil
}

func set(flags ...bool) int {
	count := 0
	for _, flag := range flags {
		if flag {
			count++
		}
	}
	return count
}

func listed[T ~string](names []T) string {
	all := make([]string, len(names))
	for n, name := range names {
		all[n] = string(name)
	}
	return strings.Join(all, ", ")
}
