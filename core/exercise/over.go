package exercise

import (
	"fmt"
	"slices"
	"strings"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// Chart is the chart of the chords that are walked through: the tune itself, or one of its key
// and time with other bars. Its error is a *chart.FieldError.
func (o Over) Chart(tune chart.Chart) (chart.Chart, error) {
	c := tune
	switch o.Kind {
	case TheTune, "":
		return o.checkTune(tune)
	case OneChord:
		chord := tune.TonicChord()
		if o.Chord != nil {
			chord = *o.Chord
		}
		bars := o.Bars
		if bars == 0 {
			bars = defaultChordBars
		}
		if bars < 1 || bars > MaxBars {
			return c, &chart.FieldError{Field: "over.bars", Detail: fmt.Sprintf("a chord goes on for 1 to %d bars", MaxBars)}
		}
		c.Bars = barsOf(c.Meter, repeated(chord, bars))
	case ChordsOfKey:
		c.Bars = barsOf(c.Meter, append(c.Key.SeventhChords(), c.Key.SeventhChords()[0]))
	case TypedInChords:
		bars, err := readProgression(o.Text, c)
		if err != nil {
			return c, err
		}
		c.Bars = bars
	default:
		return c, unknown("over.kind", "walked over", string(o.Kind), Choices.Over)
	}
	c.Imagining, c.Pickup = false, nil
	return c, nil
}

// defaultChordBars is how long one chord goes on: time for the way up and the way down.
const defaultChordBars = 4

func (o Over) checkTune(tune chart.Chart) (chart.Chart, error) {
	bars := len(tune.PlayedBars())
	switch {
	case !hasChord(tune.Bars):
		return tune, &chart.FieldError{Field: "over.kind", Detail: "the tune has no chord yet; write one into its chart, or walk over one chord or a progression"}
	case o.From < 0 || o.From >= bars:
		return tune, &chart.FieldError{Field: "over.from", Detail: fmt.Sprintf("bar %d is not in the tune; its bars are 1 to %d", o.From+1, bars)}
	case o.Bars < 0 || o.Bars > MaxBars || o.From+o.Bars > bars:
		return tune, &chart.FieldError{Field: "over.bars", Detail: fmt.Sprintf("%d bars from bar %d on are not there: at most %d, and the tune ends with bar %d", o.Bars, o.From+1, MaxBars, bars)}
	}
	return tune, nil
}

func hasChord(bars []chart.Bar) bool {
	return slices.ContainsFunc(bars, func(b chart.Bar) bool {
		return slices.ContainsFunc(b.Spans, func(s chart.Span) bool { return !s.Empty() })
	})
}

// bars are the first bar of the chart that is walked over and how many there are.
func (o Over) bars(c chart.Chart) (from, bars int) {
	if o.Kind != TheTune && o.Kind != "" {
		return 0, min(len(c.PlayedBars()), MaxBars)
	}
	if o.Bars == 0 {
		return o.From, min(len(c.PlayedBars())-o.From, MaxBars)
	}
	return o.From, o.Bars
}

func repeated(chord harmony.Chord, bars int) []harmony.Chord {
	all := make([]harmony.Chord, bars)
	for n := range all {
		all[n] = chord
	}
	return all
}

// barsOf is a bar for each chord.
func barsOf(m chart.Meter, chords []harmony.Chord) []chart.Bar {
	bars := make([]chart.Bar, len(chords))
	for n, chord := range chords {
		bars[n].Spans = []chart.Span{{Chord: chord, Beats: m.Beats()}}
	}
	return bars
}

// readProgression reads bars in bar notation, chords as symbols or numerals.
func readProgression(text string, c chart.Chart) ([]chart.Bar, error) {
	fail := func(format string, args ...any) error {
		return &chart.FieldError{Field: "over.text", Detail: fmt.Sprintf(format, args...)}
	}
	parts := []string{}
	for _, part := range strings.Split(text, "|") {
		if part = strings.TrimSpace(part); part != "" {
			parts = append(parts, part)
		}
	}
	if len(parts) == 0 {
		return nil, fail("write the chords between bar lines, as in | Am7 | D7 |")
	}
	if len(parts) > MaxBars {
		return nil, fail("a progression has at most %d bars; this has %d", MaxBars, len(parts))
	}
	bars := make([]chart.Bar, 0, len(parts))
	var before []chart.Span
	for n, part := range parts {
		spans, err := chart.ReadBar(part, c.Key, c.Meter, before)
		if err != nil {
			return nil, &chart.FieldError{Field: "over.text", Detail: fmt.Sprintf("bar %d: %s", n+1, err), Cause: err}
		}
		bars, before = append(bars, chart.Bar{Spans: spans}), spans
	}
	if !hasChord(bars) {
		return nil, fail("a progression needs at least one chord, as in | Am7 | D7 |")
	}
	return bars, nil
}
