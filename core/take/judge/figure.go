package judge

import (
	"fmt"
	"math"

	"undaris/core/analysis"
)

// Figure is one figure of a take.
type Figure struct {
	ID, Name, Text string
	// Value is a share from 0 to 1, or seconds; Known says that there is something to count it from.
	Value float64
	Known bool
	// Good says that it is as it should be.
	Good bool
	// better is 1 where more is better, -1 where less is, and 0 for a matter of style.
	better int
	// notable is the difference from which two takes differ (ours: what the chance of a few notes does not make).
	notable float64
}

// Figures are the figures of a take, in the order that they are read.
func (v Verdict) Figures() []Figure {
	landed, of := v.Landed()
	r := v.Review
	heard := 0
	for _, d := range r.Implied {
		if d.Recognition == analysis.Recognized {
			heard++
		}
	}
	bendsTrue := 0
	for _, b := range v.Intonation.Bends {
		if b.Judgement == BendTrue {
			bendsTrue++
		}
	}
	figures := []Figure{
		shareFigure("landings", "landings", landed, of, 4*landed >= 3*of),
		shareFigure("strong", "strong beats", r.Verdict.Strong.Good, r.Verdict.Strong.Of, r.EnoughStrongBeats()),
		shareFigure("rests", "rests well", r.Verdict.Rests.Good, r.Verdict.Rests.Of, 4*r.Verdict.Rests.Good >= 3*r.Verdict.Rests.Of),
		shareFigure("heard", "heard alone", heard, len(r.Implied), r.EnoughHeard()),
		{ID: "lean", Name: "leans", Text: LateText(v.Timing.Lean), Value: v.Timing.Lean, Known: len(v.Written.Places) > 0, Good: true, notable: LeanSeconds},
		{ID: "spread", Name: "steady within", Text: fmt.Sprintf("%.0f ms", 1000*v.Timing.Spread), Value: v.Timing.Spread, Known: len(v.Written.Places) > 0, Good: v.Timing.Spread <= SteadySpread, better: -1, notable: 0.003},
		{ID: "space", Name: "space", Text: fmt.Sprintf("%.0f %%", 100*r.Space), Value: r.Space, Known: true, Good: true, notable: 0.1},
	}
	if n := len(v.Intonation.Bends); n > 0 {
		figures = append(figures, shareFigure("bends", "bends in tune", bendsTrue, n, 3*bendsTrue >= 2*n))
	}
	return figures
}

func shareFigure(id, name string, good, of int, enough bool) Figure {
	f := Figure{ID: id, Name: name, Text: "none", Known: of > 0, Good: enough, better: 1, notable: 0.08}
	if of > 0 {
		f.Value, f.Text = float64(good)/float64(of), fmt.Sprintf("%d of %d", good, of)
	}
	return f
}

// Difference says how a figure of one take lies beside that of another.
type Difference string

// The differences.
const (
	Better Difference = "better"
	Worse  Difference = "worse"
	Same   Difference = "same"
	// Other is another matter of style: no better and no worse.
	Other Difference = "other"
)

// Beside says how a figure has changed from one take to a later one; Same where either is not known.
func (f Figure) Beside(before Figure) Difference {
	change := f.Value - before.Value
	switch {
	case !f.Known || !before.Known || math.Abs(change) < f.notable:
		return Same
	case f.better == 0:
		return Other
	case change*float64(f.better) > 0:
		return Better
	}
	return Worse
}
