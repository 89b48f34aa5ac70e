package chart

import (
	"sort"

	"undaris/core/harmony"
)

// Facts is what a tune asks of a player, counted over one chorus as it is played
// and as the soloist follows it.
type Facts struct {
	Bars int
	// Seconds is how long a chorus lasts.
	Seconds float64
	// Chords are the distinct chords in the order they first sound, Changes the
	// distinct changes, the most frequent first.
	Chords  []ChordFact
	Changes []ChangeFact
	// MostChords is the most chords a bar has, Fastest the played bars, from 0,
	// that have them; none where every bar has one chord.
	MostChords int
	Fastest    []int
}

// ChordFact is a chord, how often it comes and for how many beats in all.
type ChordFact struct {
	Chord        harmony.Chord
	Times, Beats int
}

// ChangeFact is a change and where it comes: the played bars, from 0, in which
// the arriving chord begins.
type ChangeFact struct {
	Leaving, Arriving harmony.Chord
	Arrivals          []int
}

// Facts counts the chart.
func (c Chart) Facts() Facts {
	moments := c.ChordSpans()
	f := Facts{Bars: c.barCount()}
	f.Seconds = c.Seconds(c.Ticks())
	index := map[string]int{}
	perBar := make([]int, f.Bars)
	for n, m := range moments {
		symbol := m.Chord.Identity()
		at, seen := index[symbol]
		if !seen {
			at = len(f.Chords)
			index[symbol] = at
			f.Chords = append(f.Chords, ChordFact{Chord: m.Chord})
		}
		f.Chords[at].Beats += m.Ticks / m.Meter.BeatTicks()
		goesOn := n > 0 && moments[n-1].Chord.Same(m.Chord)
		if !goesOn {
			f.Chords[at].Times++
		}
		if !goesOn || m.Beat == 0 {
			perBar[m.Bar]++
		}
	}
	for bar, chords := range perBar {
		switch {
		case chords > f.MostChords:
			f.MostChords, f.Fastest = chords, []int{bar}
		case chords == f.MostChords:
			f.Fastest = append(f.Fastest, bar)
		}
	}
	if f.MostChords < 2 {
		f.Fastest = nil
	}
	f.Changes = countChanges(c.Changes())
	return f
}

func countChanges(changes []Change) []ChangeFact {
	facts := []ChangeFact{}
	index := map[string]int{}
	for _, ch := range changes {
		name := ch.Leaving.Chord.Symbol() + " " + ch.Arriving.Chord.Symbol()
		at, seen := index[name]
		if !seen {
			at = len(facts)
			index[name] = at
			facts = append(facts, ChangeFact{Leaving: ch.Leaving.Chord, Arriving: ch.Arriving.Chord})
		}
		facts[at].Arrivals = append(facts[at].Arrivals, ch.Arriving.Bar)
	}
	sort.SliceStable(facts, func(a, b int) bool { return len(facts[a].Arrivals) > len(facts[b].Arrivals) })
	return facts
}

// Seconds is how long so many ticks last. The tempo counts the beats of bar 1, and through changes of
// meter the note values keep their length: an eighth of 6/8 is one of 4/4 (common where nothing
// else is written).
func (c Chart) Seconds(ticks int) float64 {
	return float64(ticks) * 60 / float64(c.Tempo*c.Meter.BeatTicks())
}
