package chart

import (
	"fmt"
	"strings"

	"undaris/core/harmony"
)

// Span is a chord and how many beats it lasts.
type Span struct {
	Chord harmony.Chord
	Beats int
}

// Bar is the chords of one bar; their beats add up to the meter's.
type Bar struct{ Spans []Span }

// Chart is a tune: its key, time and bars.
type Chart struct {
	Title string
	Key   harmony.Key
	// Box is the box the player chose; empty for the key's own.
	Box   harmony.BoxKind
	Meter Meter
	// Tempo is counted beats a minute, 20 to 400.
	Tempo int
	Feel  Feel
	// Swing is the ratio of the long eighth to the short in a shuffle, 1 to 3.
	Swing float64
	Bars  []Bar
}

// Limits of what a chart may hold.
const (
	MinTempo, MaxTempo = 20, 400
	MinSwing, MaxSwing = 1.0, 3.0
	MaxBars            = 512
	MaxTitle           = 120
)

// FieldError says which field of a chart is at fault and what is allowed.
type FieldError struct {
	// Field is the path of the field, as in "tempo" or "bars[3]".
	Field  string
	Detail string
}

func (e *FieldError) Error() string { return e.Field + ": " + e.Detail }

func unknown[T any](field, text string, allowed []T) error {
	names := make([]string, len(allowed))
	for i, a := range allowed {
		names[i] = fmt.Sprint(a)
	}
	return &FieldError{Field: field, Detail: fmt.Sprintf("%q is not known; choose one of: %s", text, strings.Join(names, ", "))}
}

// Check returns a *FieldError for the first thing that makes the chart unfit to
// be computed with or kept.
func (c Chart) Check() error {
	fail := func(field, format string, args ...any) error {
		return &FieldError{Field: field, Detail: fmt.Sprintf(format, args...)}
	}
	title := strings.TrimSpace(c.Title)
	switch {
	case title == "" || len([]rune(title)) > MaxTitle:
		return fail("title", "a title has 1 to %d characters", MaxTitle)
	case c.Tempo < MinTempo || c.Tempo > MaxTempo:
		return fail("tempo", "%d is out of range; a tempo is %d to %d beats a minute", c.Tempo, MinTempo, MaxTempo)
	case !(c.Swing >= MinSwing && c.Swing <= MaxSwing):
		return fail("swing", "%g is out of range; the long eighth is %g to %g times the short", c.Swing, MinSwing, MaxSwing)
	case len(c.Bars) == 0 || len(c.Bars) > MaxBars:
		return fail("bars", "there are %d bars; a chart has 1 to %d", len(c.Bars), MaxBars)
	case (c.Feel == Slow128) != (c.Meter == TwelveEight):
		return fail("feel", "the feel %q does not go with the meter %s; slow 12/8 needs 12/8 and 12/8 needs it", c.Feel, c.Meter)
	}
	if _, err := c.Key.Box(c.Box); err != nil {
		return fail("box", "%s", err)
	}
	for n, bar := range c.Bars {
		beats := 0
		for _, span := range bar.Spans {
			if span.Beats < 1 {
				return fail(fmt.Sprintf("bars[%d]", n), "bar %d: %s lasts %d beats; a chord lasts at least one", n+1, span.Chord.Symbol(), span.Beats)
			}
			beats += span.Beats
		}
		if beats != c.Meter.Beats() {
			return fail(fmt.Sprintf("bars[%d]", n), "bar %d has %d beats; a bar of %s has %d", n+1, beats, c.Meter, c.Meter.Beats())
		}
	}
	return nil
}

// Transposed is the chart moved to another tonic: the chords move with it.
func (c Chart) Transposed(to harmony.Key) Chart {
	moved := c
	moved.Key.Tonic = to.Tonic
	moved.Bars = make([]Bar, len(c.Bars))
	for b, bar := range c.Bars {
		spans := make([]Span, len(bar.Spans))
		for s, span := range bar.Spans {
			spans[s] = Span{Chord: span.Chord.Transposed(c.Key.Tonic, to.Tonic), Beats: span.Beats}
		}
		moved.Bars[b] = Bar{Spans: spans}
	}
	return moved
}
