package judge

import (
	"cmp"
	"slices"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/listen"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/take/transcribe"
)

// Order is a take that is to be judged.
type Order struct {
	Notes      []listen.Note
	Chart      chart.Chart
	Instrument neck.Instrument
	Hand       neck.Window
	Clock      transcribe.Clock
	// Plan is the line that was meant, in ticks of the chart; nil where there is none.
	Plan *phrase.Phrase
	// Bars are the bars that were played over, from the first on; 0 for those that have notes.
	Bars int
}

// Verdict is what is said of a take.
type Verdict struct {
	Written transcribe.Written
	// Review is what the notes say of the chords, as of any line.
	Review     analysis.Review
	Timing     Timing
	Intonation Intonation
	// Pairs set the plan beside what was heard; nil without a plan.
	Pairs []Pair
	// First are at most three findings, what costs a listener most first, and Rest the others; Good is what was
	// good.
	First, Rest, Good []Finding
}

// Judge judges a take.
func Judge(o Order) Verdict {
	v := Verdict{}
	order := transcribe.Order{Notes: o.Notes, Chart: o.Chart, Instrument: o.Instrument, Hand: o.Hand, Clock: o.Clock}
	line := o.Chart.Timeline()
	if o.Plan != nil {
		o.Plan = within(*o.Plan, o.Clock)
		v.Pairs = Align(*o.Plan, o.Instrument, o.Notes, o.Clock, line.Swung, o.Chart.Meter.BeatTicks())
		order.Meant = meant(v.Pairs, *o.Plan)
	}
	v.Written = transcribe.Write(order)
	if v.Pairs != nil {
		judgeFits(v.Pairs, v.Written, o.Instrument, o.Chart.Key)
	}
	v.Timing = TimingOf(v.Written.Places, o.Chart)
	v.Intonation = IntonationOf(o.Notes)
	v.Review = analysis.ReviewLine(o.Instrument, v.Written.Phrase, o.Chart)
	found := slices.Concat(v.reviewFindings(), v.timingFindings(o), v.intonationFindings(o), v.planFindings(o))
	slices.SortStableFunc(found, func(a, b Finding) int { return cmp.Compare(b.cost, a.cost) })
	for _, f := range found {
		switch {
		case f.Good:
			v.Good = append(v.Good, f)
		case len(v.First) < analysis.MostFirst:
			v.First = append(v.First, f)
		default:
			v.Rest = append(v.Rest, f)
		}
	}
	return v
}

// within is the plan without what lies before the take begins: a pickup that nobody could have played.
func within(plan phrase.Phrase, clock transcribe.Clock) *phrase.Phrase {
	first := 0
	for first < len(plan.Events) && float64(plan.Events[first].Tick) < clock.At(0) {
		first++
	}
	plan.Events = plan.Events[first:]
	return &plan
}
