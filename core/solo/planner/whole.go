package planner

import (
	"context"
	"math/rand/v2"

	"undaris/core/analysis"
	"undaris/core/chart"
	"undaris/core/phrase"
	"undaris/core/pitch"
	"undaris/core/solo/chorus"
)

// oftenTakenUp is how often a chorus begins with the phrase that the one before ends with (our
// choice: heard now and then it is an answer, every time a habit).
const oftenTakenUp = 0.5

// leastOfMotif is how many notes a phrase has that is recognized when it comes again (our choice).
const leastOfMotif = 4

// PlanWhole plans several choruses as one solo: the first begins with the motif of the last, one
// between may take up the last phrase of the one before, each is busier and higher than the one
// before, the highest note of all is in the last, and that ends on the tonic. Kept are the blocks that stay, by chorus; it may be shorter than the solo. The
// proposals are in order, one best for each chorus; the errors are those of Plan.
func PlanWhole(ctx context.Context, o chorus.Request, choruses int, kept [][]chorus.Block) ([]Proposals, error) {
	if err := checkSize(o, choruses); err != nil {
		return nil, err
	}
	all := make([]Proposals, choruses)
	part := func(n int) chorus.Request {
		one := o
		one.Seed += uint64(n)
		one.Part = chorus.Part{Chorus: n, Of: choruses}
		one.Kept = nil
		if n < len(kept) {
			one.Kept = kept[n]
		}
		return one
	}
	// The last is planned first, so that the others stay below its climax.
	last := choruses - 1
	planned, err := Plan(ctx, part(last))
	if err != nil {
		return nil, err
	}
	all[last] = planned
	for n := range last {
		one := part(n)
		one.Part.Ceiling = highest(o, planned.Best[0].Line)
		if n == 0 {
			one.Part.Motif = firstPhrase(planned.Best[0].Line)
		} else if r := rand.New(rand.NewPCG(one.Seed, uint64(n))); r.Float64() < oftenTakenUp {
			one.Part.Motif = lastPhrase(o.Chart.Timeline(), all[n-1].Best[0].Line)
		}
		if all[n], err = Plan(ctx, one); err != nil {
			return nil, err
		}
	}
	return all, nil
}

// highest is the highest pitch of a line, 0 where it has no notes.
func highest(o chorus.Request, line phrase.Phrase) pitch.MIDI {
	top := pitch.MIDI(0)
	for _, e := range line.Events {
		top = max(top, e.Sounding(o.Instrument))
	}
	return top
}

// firstPhrase are the notes up to the first breath.
func firstPhrase(line phrase.Phrase) []phrase.Event {
	spans := analysis.PhraseSpans(line)
	if len(spans) == 0 {
		return nil
	}
	return line.Events[spans[0].From:spans[0].To]
}

// lastPhrase are the notes of the last phrase of a motif's length, moved by whole bars to the top
// of a chorus; none where there is no such phrase.
func lastPhrase(t chart.Timeline, line phrase.Phrase) []phrase.Event {
	spans := analysis.PhraseSpans(line)
	for n := len(spans) - 1; n >= 0; n-- {
		if notes := line.Events[spans[n].From:spans[n].To]; len(notes) >= leastOfMotif {
			return shifted(notes, -t.BarStart(notes[0].Tick+t.BeatTicksAt(notes[0].Tick)))
		}
	}
	return nil
}
