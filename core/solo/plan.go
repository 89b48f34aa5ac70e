package solo

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"sort"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/phrase"
)

// Planned is the answer to an order: the best chorus and others that differ from it, and
// what of the order gave way.
type Planned struct {
	// Best is up to three choruses, the best first.
	Best []Proposal
	Gave []Gave
}

// Proposal is one chorus and what is said of it.
type Proposal struct {
	Chorus
	Reviewed
	// Faults is what it was chosen by: the fewer the better. It is no grade.
	Faults float64
}

// candidatesMade is how many choruses are made from one seed at least, mostCandidates at
// most while none has fewer faults than are good enough; proposals how many are offered;
// differ is the share of notes that two of them may have in common.
const (
	candidatesMade = 14
	mostCandidates = 44
	goodEnough     = 8
	proposals      = 3
	differ         = 0.7
)

// Plan makes choruses from the order's seed, judges each, and keeps the best that differ.
// The same order gives the same answer. Its error is a *chart.FieldError for what cannot
// be meant; what cannot be had gives way, and is named.
func (o ChorusOrder) Plan() (Planned, error) {
	g, err := o.lay()
	if err != nil {
		return Planned{}, err
	}
	all := make([]Proposal, 0, candidatesMade)
	least := math.Inf(1)
	for attempt := range uint64(mostCandidates) {
		if attempt >= candidatesMade && least < goodEnough {
			break
		}
		c, err := g.candidate(rand.New(rand.NewPCG(o.Seed, attempt)))
		if err != nil {
			return Planned{}, &chart.FieldError{Field: "position", Detail: err.Error()}
		}
		p := Proposal{Chorus: c, Reviewed: Review(o.Instrument, c.Heard(o.Chart), o.Chart)}
		p.Faults = g.faults(p.Reviewed)
		least = min(least, p.Faults)
		all = append(all, p)
	}
	sort.SliceStable(all, func(a, b int) bool { return all[a].Faults < all[b].Faults })
	planned := Planned{}
	for _, p := range all {
		if len(planned.Best) < proposals && apart(p, planned.Best) {
			planned.Best = append(planned.Best, p)
		}
	}
	g.giveLicks(planned.Best[0].Chorus)
	g.giveKept(planned.Best[0])
	planned.Gave = g.gave
	return planned, nil
}

// apart says whether a proposal has notes enough of its own beside those chosen.
func apart(p Proposal, chosen []Proposal) bool {
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
		if float64(alike) > differ*float64(len(p.Line.Events)) {
			return false
		}
	}
	return true
}

// What faults weigh against each other (ours): a change without its landing is the worst,
// then a chord that is not heard, a note rested on that wants to move, a dull chorus.
const (
	weighsLanding    = 60
	weighsRest       = 12
	weighsPassing    = 5
	weighsUnheard    = 14
	weighsStrong     = 60
	weighsSpace      = 120
	weighsBreathless = 20
	weighsFinding    = 10
	leastStrong      = 0.72
	leastSpace       = 0.16
	weighsDense      = 2
	weighsNoBend     = 3
	weighsStretch    = 20
	weighsShort      = 4
	leastPhraseBar   = 1
)

// faults weighs what is wrong with a chorus against what the order asks.
func (g *ground) faults(r Reviewed) float64 {
	sum := 0.0
	if len(r.Line.Events) == 0 {
		return 1e9
	}
	for _, a := range g.arrivals {
		if !g.landed(r, a) {
			sum += weighsLanding
		}
	}
	sum += weighsRest*float64(len(r.Verdict.Rests.Offenders)) + weighsPassing*float64(len(r.Verdict.Passing))
	for _, d := range r.Dropped {
		if d.To-d.From >= g.Chart.Meter.BarTicks() && d.Hearing != phrase.HeardTrue {
			sum += weighsUnheard * (0.3 + g.blendAt(d.From))
		}
	}
	if s := r.Verdict.Strong; s.Of > 0 {
		sum += weighsStrong * max(leastStrong-float64(s.Good)/float64(s.Of), 0) * min(2*g.blendAt(0), 1)
	}
	if wanted := min(leastSpace, g.Space); r.Space < wanted {
		sum += weighsBreathless
	}
	sum += weighsSpace * max(g.Space-0.1-r.Space, 0)
	if r.Verdict.Shape.WidestMM > g.SpanMM {
		sum += weighsStretch
	}
	for _, f := range r.Lively {
		if !f.Good {
			sum += weighsFinding
		}
	}
	bent := false
	for _, e := range r.Line.Events {
		bent = bent || e.Bend > 1
	}
	if !bent {
		sum += weighsNoBend
	}
	for _, b := range breaths(r.Line) {
		if r.Line.Events[b.to-1].End()-r.Line.Events[b.from].Tick < leastPhraseBar*g.Chart.Meter.BarTicks() {
			sum += weighsShort
		}
	}
	density := float64(len(r.Line.Events)) / float64(g.bars())
	return sum + weighsDense*max(density-g.Density, g.Density-density)
}

// landed says whether a note of the aimed class is played within an eighth of an arrival.
func (g *ground) landed(r Reviewed, a arrival) bool {
	return slices.ContainsFunc(r.Line.Events, func(e phrase.Event) bool {
		away := e.Tick - a.tick
		return max(away, -away) <= eighth && e.Sounding(g.Instrument).Class() == a.aim.Note.Class()
	})
}

const eighth = chart.TicksPerQuarter / 2

// giveKept names the landings that kept blocks do not allow.
func (g *ground) giveKept(p Proposal) {
	for _, a := range g.arrivals {
		for _, b := range g.Kept {
			if !b.Locked || a.tick < b.Start || a.tick >= b.End() {
				continue
			}
			home := false
			for _, e := range p.Line.Events {
				away := e.Tick - a.tick
				home = home || (max(away, -away) <= eighth && g.chords[a.over].class[e.Sounding(g.Instrument).Class()] == harmony.Home)
			}
			if !home {
				g.gave = append(g.gave, Gave{"kept", keptSays(b, a)})
			}
		}
	}
}

func keptSays(b Block, a arrival) string {
	return fmt.Sprintf("bar %d: the locked block %s has no tone of %s where it arrives, so that landing gives way; unlock or move the block, or land on %s, the %s",
		a.Arriving.Bar+1, b.called(), a.Arriving.Chord.Symbol(), a.aim.Note, a.aim.Degree)
}
