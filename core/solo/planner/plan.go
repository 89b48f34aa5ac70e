package planner

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
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

// MaxChanges is how many changes are planned at once, of all choruses together (our choice: 512 take some two seconds;
// a song of 34 bars has about as many as bars).
const MaxChanges = 512

// checkSize says whether so many choruses can be planned at once: a *chart.FieldError where they cannot.
func checkSize(o chorus.Request, choruses int) error {
	changes := len(o.Chart.TargetChanges())
	if changes*choruses <= MaxChanges {
		return nil
	}
	detail := fmt.Sprintf("the tune has %d changes; at most %d are planned at once", changes, MaxChanges)
	if most := MaxChanges / changes; most >= 1 {
		detail += fmt.Sprintf(", which are %d choruses of it", most)
	}
	return &chart.FieldError{Field: "chart", Detail: detail}
}

// Plan makes choruses from the request's seed, judges each, and keeps the best that differ.
// The same request gives the same answer. Its error is a *chart.FieldError for what cannot
// be meant, or the context's where nobody waits for the answer any more; what cannot be had
// gives way, and is named.
func Plan(ctx context.Context, o chorus.Request) (Proposals, error) {
	if err := checkSize(o, 1); err != nil {
		return Proposals{}, err
	}
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
