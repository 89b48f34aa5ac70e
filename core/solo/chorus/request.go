package chorus

import (
	"fmt"
	"slices"

	"undaris/core/change"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/lick"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/pitch"
)

// Request asks for a chorus over a chart: what to aim at, where to stand, what to
// play with and how much of it. The same order gives the same chorus.
type Request struct {
	Chart      chart.Chart
	Instrument neck.Instrument
	// Position is where the hand stands, Shifts where it goes to at later bars.
	Position neck.Position
	Shifts   []Shift
	Swaps    []neck.Swap
	// SpanMM is the widest reach between neighbouring notes, in millimetres.
	SpanMM   float64
	Strategy change.TargetStrategy
	// Approaches are those that may lead into a landing; none means any of them.
	Approaches []change.ApproachKind
	// Box is the box that is played in; empty is the chart's own.
	Box harmony.BoxKind
	// Licks are the vocabulary. FromLicks says that phrases begin with them; where none of
	// them fits, the plan says so and makes its own.
	Licks     []lick.Lick
	FromLicks bool
	// NoBends leaves bends out, and licks that have any: for stiff strings, basses and sore hands.
	NoBends bool
	// Subdivision is the finest that phrases run in, Density how many notes a bar has on
	// average where something is played and where it is not.
	Subdivision chart.Subdivision
	Density     float64
	// Blend is how much each bar of the chorus follows the chords: 0 the box alone, 1
	// chord tones alone. One number stands for every bar.
	Blend []float64
	// Form is the phrase plan.
	Form Form
	// Space is the share of silence that is wanted, 0 to 1.
	Space float64
	Seed  uint64
	// Kept are blocks that stay as they are.
	Kept []Block
	// Part says which of several choruses this is; the zero Part is a chorus by itself.
	Part Part
}

// Part is the place of a chorus in a solo of several that are planned as one.
type Part struct {
	// Chorus counts from 0, Of is how many there are.
	Chorus, Of int
	// Motif are the notes that the chorus begins with, in ticks of the chorus; Ceiling is the
	// pitch that all of it stays below, 0 for none.
	Motif   []phrase.Event
	Ceiling pitch.MIDI
}

// Progress is how far into the solo the chorus comes: 0 the first, 1 the last, a half where it
// is by itself.
func (p Part) Progress() float64 {
	if p.Of < 2 {
		return 0.5
	}
	return float64(p.Chorus) / float64(p.Of-1)
}

// Last says whether the solo ends with the chorus.
func (p Part) Last() bool { return p.Of > 1 && p.Chorus == p.Of-1 }

// Shift moves the hand to a position at the start of a bar, counted from 0.
type Shift struct {
	Bar      int
	Position neck.Position
}

// What is asked for unless told otherwise (ours).
const (
	DefaultBlend   = 0.5
	DefaultDensity = 4
	DefaultSpace   = 0.25
	// MaxSpace leaves time for the landings.
	MaxSpace = 0.6
	// MinDensity is a note a bar; less has no line in it.
	MinDensity = 1
	// MaxChoruses is how many choruses a solo has at most.
	MaxChoruses = 16
)

// Check returns a *chart.FieldError for the first thing that cannot be meant.
func (o Request) Check() error {
	if err := o.Chart.Check(); err != nil {
		return err
	}
	if !slices.ContainsFunc(o.Chart.ChordSpans(), func(m chart.ChordSpan) bool { return !m.Silent || m.Imagined }) {
		return &chart.FieldError{Field: "chart.bars", Detail: "the chart has no chord yet: write one into a bar, and a solo can aim at it"}
	}
	bars := o.BarCount()
	if len(o.Blend) > 1 && len(o.Blend) != bars {
		return &chart.FieldError{Field: "blend", Detail: fmt.Sprintf("the blend is one number, or one for each of the %d bars; this is %d numbers", bars, len(o.Blend))}
	}
	for bar, b := range o.Blend {
		if !(b >= 0 && b <= 1) {
			return &chart.FieldError{Field: fmt.Sprintf("blend[%d]", bar), Detail: fmt.Sprintf("bar %d: a blend is 0 (the box alone) to 1 (chord tones alone); %g is not, the nearest is %g", bar+1, b, min(max(b, 0), 1))}
		}
	}
	if !(o.Space >= 0 && o.Space <= MaxSpace) {
		return &chart.FieldError{Field: "space", Detail: fmt.Sprintf("space is a share of silence from 0 to %g; %g is not, the nearest is %g", MaxSpace, o.Space, min(max(o.Space, 0), MaxSpace))}
	}
	if !(o.Density >= MinDensity && o.Density <= 64) {
		return &chart.FieldError{Field: "density", Detail: fmt.Sprintf("density is %d to 64 notes a bar; %g is not", MinDensity, o.Density)}
	}
	for n, s := range o.Shifts {
		if s.Bar < 1 || s.Bar >= bars || (n > 0 && s.Bar <= o.Shifts[n-1].Bar) {
			return &chart.FieldError{Field: fmt.Sprintf("shifts[%d]", n), Detail: fmt.Sprintf("the hand shifts at bar 2 to %d, each shift after the one before; bar %d does not", bars, s.Bar+1)}
		}
	}
	if o.Part.Of < 0 || o.Part.Of > MaxChoruses || o.Part.Of > 0 && (o.Part.Chorus < 0 || o.Part.Chorus >= o.Part.Of) {
		return &chart.FieldError{Field: "part", Detail: fmt.Sprintf("a solo has 1 to %d choruses; chorus %d of %d is none of them", MaxChoruses, o.Part.Chorus+1, o.Part.Of)}
	}
	return o.checkKept()
}

// checkKept says which kept blocks stand in each other's way.
func (o Request) checkKept() error {
	t := o.Chart.Timeline()
	for n, b := range o.Kept {
		if err := b.Check(t); err != nil {
			return &chart.FieldError{Field: fmt.Sprintf("kept[%d]", n), Detail: err.Error()}
		}
		if n > 0 && o.Kept[n-1].End() > b.Start {
			before := o.Kept[n-1]
			return &chart.FieldError{Field: fmt.Sprintf("kept[%d]", n), Detail: fmt.Sprintf(
				"two locked blocks overlap: %s goes on to %s, and %s begins on %s; the nearest place for it is there",
				before.Title(), t.CountedInBar(before.End()), b.Title(), t.CountedInBar(b.Start))}
		}
	}
	return nil
}

// BarCount is how many bars a chorus has as it is played.
func (o Request) BarCount() int { return len(o.Chart.PlayedBars()) }

// BoxIn is the box that is played in where a key holds.
func (o Request) BoxIn(k harmony.Key) (harmony.Box, error) {
	kind := o.Box
	if kind == "" {
		kind = o.Chart.Box
	}
	return k.Box(kind)
}

// BlendAt is the blend at a tick of the chorus.
func (pc *Context) BlendAt(tick int) float64 {
	if len(pc.Blend) == 0 {
		return DefaultBlend
	}
	if len(pc.Blend) == 1 {
		return pc.Blend[0]
	}
	_, bar := pc.Time.Chorus(pc.Time.BarAt(tick))
	return pc.Blend[bar]
}

// FindPosition finds a position of a key, by its ID or name. One of another key of the chart is followed into
// this one: the same form, at the place nearest to where it was. The error is that of the key itself.
func FindPosition(c chart.Chart, i neck.Instrument, k harmony.Key, text string) (neck.Position, error) {
	p, err := neck.FindPosition(i, k.Tonic.Class(), text)
	if err == nil {
		return p, nil
	}
	t := c.Timeline()
	for bar := range t.Bars() {
		other := t.KeyAt(bar).Tonic.Class()
		if p, errThere := neck.FindPosition(i, other, text); errThere == nil && other != k.Tonic.Class() {
			return p.Follow(i, other, i, k.Tonic.Class()), nil
		}
	}
	return p, err
}

// handPlaces are where the hand stands through the chorus.
func (o Request) handPlaces(t chart.Timeline) []change.HandPlace {
	sent := make([]change.HandPlace, len(o.Shifts))
	for n, s := range o.Shifts {
		sent[n] = change.HandPlace{Tick: t.Start(s.Bar), Position: s.Position}
	}
	return change.HandPlaces(t, o.Instrument, o.Position, sent...)
}

// PositionAt is where the hand stands at a tick of the chorus.
func (pc *Context) PositionAt(tick int) neck.Position { return change.PositionAt(pc.hand, tick) }
