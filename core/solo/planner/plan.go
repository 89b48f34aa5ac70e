package planner

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"sort"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/solo/chorus"
)

// Proposals is the answer to an order: the best chorus and others that differ from it, and
// what of the order gave way.
type Proposals struct {
	// Best is up to three choruses, the best first.
	Best        []Proposal
	Concessions []chorus.Concession
}

// Proposal is one chorus and what is said of it.
type Proposal struct {
	chorus.Chorus
	analysis.Review
	// Faults is what it was chosen by: the fewer the better. It is no grade.
	Faults float64
}

// candidatesMade is how many choruses are made from one seed at least, mostCandidates at
// most while none has fewer faults than are good enough; proposals how many are offered;
// differ is the share of notes that two of them may have in common.
const (
	candidatesMade = 6
	mostCandidates = 9
	goodEnough     = 1.25 // a bar
	proposals      = 3
	mostShared     = 0.7
)

// Plan makes choruses from the request's seed, judges each, and keeps the best that differ.
// The same request gives the same answer. Its error is a *chart.FieldError for what cannot
// be meant, or the context's where nobody waits for the answer any more; what cannot be had
// gives way, and is named.
func Plan(ctx context.Context, o chorus.Request) (Proposals, error) {
	pc, err := newPlanContext(o)
	if err != nil {
		return Proposals{}, err
	}
	all := make([]Proposal, 0, candidatesMade)
	least := math.Inf(1)
	for attempt := range uint64(mostCandidates) {
		if attempt >= candidatesMade && least < goodEnough*float64(pc.BarCount()) {
			break
		}
		if err := ctx.Err(); err != nil {
			return Proposals{}, err
		}
		c, err := pc.candidate(rand.New(rand.NewPCG(o.Seed, attempt)))
		if err != nil {
			return Proposals{}, &chart.FieldError{Field: "position", Detail: err.Error()}
		}
		p := Proposal{Chorus: c, Review: analysis.ReviewLine(o.Instrument, c.Phrase(o.Chart), o.Chart)}
		p.Faults = pc.faults(p.Review)
		least = min(least, p.Faults)
		all = append(all, p)
	}
	sort.SliceStable(all, func(a, b int) bool { return all[a].Faults < all[b].Faults })
	planned := Proposals{}
	for _, p := range all {
		if len(planned.Best) < proposals && differs(p, planned.Best) {
			planned.Best = append(planned.Best, p)
		}
	}
	pc.concedeLicks(planned.Best[0].Chorus)
	pc.concedeKept(planned.Best[0])
	planned.Concessions = pc.Concessions
	return planned, nil
}

// differs says whether a proposal has notes enough of its own beside those chosen.
func differs(p Proposal, chosen []Proposal) bool {
	for _, other := range chosen {
		known := map[[2]int]bool{}
		for _, e := range other.Line.Events {
			known[[2]int{e.Tick, e.String*100 + e.Fret}] = true
		}
		alike := 0
		for _, e := range p.Line.Events {
			if known[[2]int{e.Tick, e.String*100 + e.Fret}] {
				alike++
			}
		}
		if float64(alike) > mostShared*float64(len(p.Line.Events)) {
			return false
		}
	}
	return true
}

// What faults weigh against each other (ours): a change without its landing is the worst,
// then a chord that is not heard, a note rested on that wants to move, a dull chorus.
const (
	weighsLanding = 60
	// A landing on a tone of the chord that is not the one aimed at, as licks have them; a
	// change that is left to the band.
	weighsOtherTone    = 4
	weighsSilentChange = 6
	weighsRest         = 12
	weighsPassing      = 5
	weighsUnheard      = 14
	weighsStrong       = 60
	weighsSpace        = 120
	weighsBreathless   = 20
	weighsFinding      = 10
	leastStrong        = 0.72
	leastSpace         = 0.16
	spaceAllowed       = 0.03
	weighsBend         = 5  // one too few or too many
	weighsUntold       = 10 // a chord under which neither its 3rd nor its 7th is played
	weighsEnding       = 40 // a solo that does not end on the tonic
	weighsExercise     = 40 // the chords or the scale walked
	weighsDense        = 6
	weighsStretch      = 80
	weighsShort        = 4
	leastPhraseBar     = 0.4
)

// faults weighs what is wrong with a chorus against what the order asks.
func (pc *planContext) faults(r analysis.Review) float64 {
	sum := 0.0
	if len(r.Line.Events) == 0 {
		return 1e9
	}
	for _, a := range pc.Targets {
		switch landing := pc.Landing(r.Line, a); {
		case landing.OnAim:
		case landing.Index < 0: // left to the band
			sum += weighsSilentChange
		case landing.Class == harmony.ChordTone:
			sum += weighsOtherTone
		default:
			sum += weighsLanding
		}
	}
	sum += weighsRest*float64(len(r.Verdict.Rests.Issues)) + weighsPassing*float64(len(r.Verdict.Passing))
	for _, d := range r.Implied {
		if d.To-d.From >= pc.Chart.Meter.BarTicks() && d.Recognition != analysis.Recognized {
			sum += weighsUnheard * (0.3 + pc.BlendAt(d.From))
		}
	}
	for n, c := range r.Verdict.Coverage {
		if d := r.Implied[n]; d.To-d.From >= pc.Chart.Meter.BarTicks() && len(c.Notes) > 0 && !hasGuideTone(c) {
			sum += weighsUntold * (0.3 + pc.BlendAt(d.From))
		}
	}
	for _, f := range r.First {
		if f.Name == analysis.FindingArpeggios || f.Name == analysis.FindingScales {
			sum += weighsExercise
		}
	}
	if s := r.Verdict.Strong; s.Of > 0 {
		sum += weighsStrong * max(leastStrong-float64(s.Good)/float64(s.Of), 0) * min(2*pc.BlendAt(0), 1)
	}
	if wanted := min(leastSpace, pc.Space); r.Space < wanted {
		sum += weighsBreathless
	}
	sum += weighsSpace * max(math.Abs(pc.Space-r.Space)-spaceAllowed, 0)
	if r.Verdict.Shape.WidestMM > pc.SpanMM {
		sum += weighsStretch
	}
	for _, f := range r.Style {
		if !f.Good {
			sum += weighsFinding
		}
	}
	if last := r.Line.Events[len(r.Line.Events)-1]; pc.Part.Last() && last.Sounding(pc.Instrument).Class() != pc.Chart.Key.Tonic.Class() {
		sum += weighsEnding
	}
	bends := 0
	for _, e := range r.Line.Events {
		if e.Bend > 0 {
			bends++
		}
	}
	sum += weighsBend * float64(max(fewestBends-bends, bends-mostBends, 0))
	for _, b := range analysis.PhraseSpans(r.Line) {
		if r.Line.Events[b.To-1].End()-r.Line.Events[b.From].Tick < int(leastPhraseBar*float64(pc.Chart.Meter.BarTicks())) {
			sum += weighsShort
		}
	}
	density := float64(len(r.Line.Events)) / float64(pc.BarCount())
	return sum + weighsDense*max(density-pc.Density, pc.Density-density)
}

func hasGuideTone(c analysis.ChordCoverage) bool {
	return slices.ContainsFunc(c.Got, func(t harmony.Tone) bool { return harmony.IsGuideTone(t.Degree) })
}

// concedeKept names the landings that kept blocks do not allow.
func (pc *planContext) concedeKept(p Proposal) {
	for _, a := range pc.Targets {
		for _, b := range pc.Kept {
			if !b.Locked || a.Tick < b.Start || a.Tick >= b.End() {
				continue
			}
			if pc.Landing(p.Line, a).Class != harmony.ChordTone {
				pc.Concessions = append(pc.Concessions, chorus.Concession{Field: "kept", Text: keptText(b, a)})
			}
		}
	}
}

func keptText(b chorus.Block, a chorus.PlannedTarget) string {
	return fmt.Sprintf("bar %d: the locked block %s has no tone of %s where it arrives, so that landing gives way; unlock or move the block, or land on %s, the %s",
		a.Arriving.Bar+1, b.Title(), a.Arriving.Chord.Symbol(), a.Aim.Note, a.Aim.Degree)
}
