package judge

import (
	"slices"

	"undaris/core/chart"
	"undaris/core/harmony"
)

// MissedChange is a change that something was played on, and no tone of the arriving chord.
type MissedChange struct {
	// Note is the one that was played, by its index in what was heard; Tick is where the chord arrives.
	Note, Tick        int
	Key               harmony.Key
	Leaving, Arriving harmony.Chord
	// Played is what the note is over the arriving chord.
	Played harmony.Judgement
}

// MissedChanges are the changes that were missed, in order of time.
func (v Verdict) MissedChanges(c chart.Chart) []MissedChange {
	spans, line := c.ChordSpans(), c.Timeline()
	heard := map[int]int{}
	for _, p := range v.Written.Places {
		heard[p.Event] = p.Note
	}
	missed := []MissedChange{}
	for _, l := range v.Review.Verdict.Landings {
		if l.Index < 0 || l.Class == harmony.ChordTone {
			continue
		}
		at := slices.IndexFunc(spans, func(s chart.ChordSpan) bool { return s.Tick == line.InChorus(l.Tick) })
		if at < 0 {
			continue
		}
		before := spans[(at+len(spans)-1)%len(spans)]
		missed = append(missed, MissedChange{Note: heard[l.Index], Tick: l.Tick, Key: spans[at].Key, Leaving: before.Chord, Arriving: l.Chord, Played: l.Judgement})
	}
	return missed
}
