package exercise

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Sequence is an exercise: one small figure walked up and down the tones of a
// position, in the chart's time and through its chords.
type Sequence struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	Window     neck.Window
	// Tones says which tones are walked, Cell which figure, Order which way round.
	Tones, Figure, Order string
	Subdivision          chart.Subdivision
	// From is the first bar, from 0; Bars is how many. They stay within a chorus.
	From, Bars int
}

// What a sequence walks over.
const (
	ChordTones   = "chord tones"
	ScaleOfChord = "scale of the chord"
	BoxTones     = "box"
)

// SequenceTones, SequenceOrders list what may be chosen, the default first.
var (
	SequenceTones  = []string{ChordTones, ScaleOfChord, BoxTones}
	SequenceOrders = []string{"as written", "reversed", "alternating"}
)

// figures are the figures, by how many steps of the walked tones their notes lie
// above the note they begin on; each next one begins a step further on (common
// practice). Chord tones are a third apart already, so that their triads and
// sevenths are neighbours, and one after another they are thirds.
var figures = []struct {
	name          string
	scale, chords []int
}{
	{"one after another", []int{0}, []int{0}},
	{"thirds", []int{0, 2}, nil},
	{"fourths", []int{0, 3}, nil},
	{"triads", []int{0, 2, 4}, []int{0, 1, 2}},
	{"sevenths", []int{0, 2, 4, 6}, []int{0, 1, 2, 3}},
	{"two up, one down", []int{0, 1, 2}, []int{0, 2}},
	{"groups of four", []int{0, 1, 2, 3}, nil},
}

// SequenceFigures lists the figures that may be walked over the tones.
func SequenceFigures(over string) []string {
	names := []string{}
	for _, c := range figures {
		if over != ChordTones || c.chords != nil {
			names = append(names, c.name)
		}
	}
	if over == ChordTones {
		for _, s := range spreads {
			names = append(names, s.name)
		}
	}
	return names
}

// MaxSequenceBars is how many bars a sequence is written over at most.
const MaxSequenceBars = 64

// Write writes the sequence out as a phrase whose tick 0 is the start of bar From.
// Its error is a *chart.FieldError that says what may be chosen.
func (q Sequence) Write() (phrase.Phrase, error) {
	if err := q.check(); err != nil {
		return phrase.Phrase{}, err
	}
	p := phrase.Phrase{Meter: q.Chart.Meter}
	start := q.From * q.Chart.Meter.BarTicks()
	end := start + q.Bars*q.Chart.Meter.BarTicks()
	spread := slices.IndexFunc(spreads, func(s struct {
		name             string
		degrees, octaves []int
	}) bool {
		return s.name == q.Figure
	})
	walk := walker{up: 1}
	for _, m := range q.Chart.ChordSpans() {
		from, to := max(m.Tick, start), min(m.Tick+m.Ticks, end)
		if from >= to {
			continue
		}
		count := (to - from) / q.Subdivision.Ticks(q.Chart.Meter)
		var notes []neck.Placed
		var err error
		if spread >= 0 {
			notes, err = q.spread(m.Chord, spreads[spread].degrees, spreads[spread].octaves, count)
		} else {
			notes, err = q.walk(&walk, m.Chord, count)
		}
		if err != nil {
			return phrase.Phrase{}, err
		}
		step := q.Subdivision.Ticks(q.Chart.Meter)
		for n, note := range notes {
			p.Events = append(p.Events, phrase.Event{Tick: from - start + n*step, Ticks: step, Fingered: note.Fingered})
		}
	}
	return p.WithChordsOf(q.Chart, start), nil
}

func (q Sequence) check() error {
	fail := func(field, format string, args ...any) error {
		return &chart.FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	bars := len(q.Chart.PlayedBars())
	switch {
	case !slices.Contains(SequenceTones, q.Tones):
		return fail("tones", "%q is not walked over; choose %s", q.Tones, strings.Join(SequenceTones, ", "))
	case !slices.Contains(SequenceFigures(q.Tones), q.Figure):
		return fail("figure", "%q is not a figure over the %s; choose %s", q.Figure, q.Tones, strings.Join(SequenceFigures(q.Tones), "; "))
	case !slices.Contains(SequenceOrders, q.Order):
		return fail("order", "%q is not an order; choose %s", q.Order, strings.Join(SequenceOrders, ", "))
	case q.From < 0 || q.From >= bars:
		return fail("from", "bar %d is not in the chart; its bars are 1 to %d", q.From+1, bars)
	case q.Bars < 1 || q.Bars > MaxSequenceBars || q.From+q.Bars > bars:
		return fail("bars", "%d bars from bar %d are not to be had: at most %d, and the chart ends with bar %d", q.Bars, q.From+1, MaxSequenceBars, bars)
	}
	return nil
}

// TonesOver is the tones that are walked over a chord: its own, its scale of the chord or
// the box of the chart. Its error is a *chart.FieldError.
func TonesOver(c chart.Chart, chord harmony.Chord, over string) ([]harmony.Tone, error) {
	switch over {
	case ChordTones:
		return chord.Tones(), nil
	case ScaleOfChord:
		scale, _ := c.Key.ChordScale(chord)
		return scale.Tones, nil
	case BoxTones:
		box, err := c.Key.Box(c.Box)
		return box.Tones, err
	}
	return nil, &chart.FieldError{Field: "tones", Detail: fmt.Sprintf("%q is not walked over; choose %s", over, strings.Join(SequenceTones, ", "))}
}

// ladder is the tones that are walked over a chord, from the lowest up.
func (q Sequence) ladder(c harmony.Chord) ([]neck.Placed, error) {
	tones, err := TonesOver(q.Chart, c, q.Tones)
	if err != nil {
		return nil, err
	}
	return neck.PlaceTones(q.Instrument, q.Window, tones).Tones, nil
}

func (q Sequence) figure() []int {
	for _, c := range figures {
		if c.name == q.Figure && q.Tones == ChordTones {
			return c.chords
		}
		if c.name == q.Figure {
			return c.scale
		}
	}
	return nil
}
