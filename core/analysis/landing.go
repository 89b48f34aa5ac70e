package analysis

import (
	"sort"

	"undaris/core/harmony"
	"undaris/core/neck"
	"undaris/core/phrase"
)

// Timing says when a landing is played, beside the tick at which its chord arrives.
type Timing string

// The timings of a landing.
const (
	// Early: the note starts up to EarlyTicks before the chord and rings through its arrival.
	Early Timing = "early"
	// OnTime: it starts with the chord.
	OnTime Timing = "on"
	// Late: it starts up to a beat after the chord.
	Late Timing = "late"
	// NoLanding: nothing is played in that time.
	NoLanding Timing = "none"
)

// Landing is the note that lands on a chord as it arrives.
type Landing struct {
	// Tick is where the chord arrives.
	Tick  int
	Chord harmony.Chord
	// Index is the event that lands, -1 for none.
	Index  int
	Timing Timing
	// Judgement is what that note is over the chord; empty where none lands.
	harmony.Judgement
}

// InLandingWindow says whether a note from a tick to an end may be heard as landing on what arrives at a tick, where a
// counted beat has beatTicks: it begins from an eighth before, if it rings through the arrival, to a beat after.
func InLandingWindow(tick, end, arrives, beatTicks int) bool {
	return tick >= arrives-EarlyTicks && tick <= arrives+beatTicks && (tick >= arrives || end > arrives)
}

// LandingAt is the landing on a chord that arrives at a tick: the note that sounds as the
// chord arrives or the first after it, from an eighth before to a beat after. A note that
// starts up to an eighth early counts if it rings through the arrival; one that has ended
// by then leads in and is no landing. A note from which a slur, a slide or a bend goes on to a
// chord tone within that beat is one landing with it, on the note it goes to. Grace notes are part of the note they lead to.
func LandingAt(p phrase.Phrase, i neck.Instrument, k harmony.Key, tick int, chord harmony.Chord) Landing {
	l := Landing{Tick: tick, Chord: chord, Index: -1, Timing: NoLanding}
	beat := p.BarLines().BeatTicksAt(tick)
	first := sort.Search(len(p.Events), func(n int) bool { return p.Events[n].Tick >= tick-EarlyTicks })
	for n := first; n < len(p.Events) && p.Events[n].Tick <= tick+beat; n++ {
		e := p.Events[n]
		if e.Grace || !InLandingWindow(e.Tick, e.End(), tick, beat) {
			continue
		}
		switch {
		case e.Tick < tick:
			l.Timing = Early
		case e.Tick > tick:
			l.Timing = Late
		default:
			l.Timing = OnTime
		}
		for m := n + 1; m < len(p.Events) && p.Events[m].Tick <= tick+beat && leadsInto(p, m) && k.Classify(chord, p.Events[n].Sounding(i).Class()) != harmony.ChordTone; m++ {
			if k.Classify(chord, p.Events[m].Sounding(i).Class()) == harmony.ChordTone {
				n = m
			}
		}
		l.Index, l.Judgement = n, k.Judge(chord, p.Events[n].Sounding(i).Class())
		break
	}
	return l
}

// leadsInto says whether the note before event n goes on to it by a slur, a slide or a bend on
// its string.
func leadsInto(p phrase.Phrase, n int) bool {
	e, before := p.Events[n], p.Events[n-1]
	return p.Slurred(n) || e.Bend > 0 && e.Place == before.Place && before.End() == e.Tick
}

// Landings lists the landings on the changes under the phrase: on each chord it is over but
// the first.
func Landings(p phrase.Phrase, i neck.Instrument, k harmony.Key) []Landing {
	all := []Landing{}
	for n := 1; n < len(p.Chords); n++ {
		if p.Chords[n].Chord.Same(p.Chords[n-1].Chord) {
			continue // it goes on, in another key or over another chord of the band
		}
		all = append(all, LandingAt(p, i, k, p.Chords[n].Tick, p.Chords[n].Chord))
	}
	return all
}
