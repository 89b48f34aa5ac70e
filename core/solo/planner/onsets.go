package planner

import (
	"undaris/core/analysis"
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// onsets are the notes of a slot's phrase as its pattern has them, without those that a
// kept block stands over.
func (pc *planContext) onsets(slots []phraseSlot, n int, patterns map[string]pattern, licks map[string]lickPattern) []onset {
	s := slots[n]
	p := patterns[s.motifID]
	m := pc.Chart.Meter
	beat := m.BeatTicks()
	next := slots[(n+1)%len(slots)]
	until := s.start + s.ticks + patterns[next.motifID].onsets[0]
	all := []onset{}
	for k, at := range p.onsets {
		tick := s.start + at
		o := onset{tick: tick, over: pc.ChordAt(tick), strong: m.IsStrong(tick), onBeat: tick%beat == 0, arrival: -1, motifInterval: noMotifInterval,
			window: pc.PositionAt(tick).Window, blend: pc.BlendAt(tick), held: k == p.held}
		switch {
		case k == p.held:
			air := max(int(pc.Space*float64(s.ticks)), int(leastAir*float64(beat)))
			o.ticks = min(max(until-air-tick, int(shortestHold*float64(beat))), int(longestHold*float64(beat)))
			o.ticks = max(min(o.ticks, until-beat-tick), beat/2)
		default:
			o.ticks = p.onsets[k+1] - at
			if stop, stopped := p.stops[k]; stopped {
				o.ticks = min(o.ticks, stop-at)
			}
		}
		for _, a := range s.arrivals {
			// The first note of a phrase may land late.
			if late := tick - pc.TargetTicks[a]; late == 0 || k == 0 && late > 0 && late <= analysis.EarlyTicks {
				o.arrival = a
			}
		}
		if events := licks[s.motifID].eventsOver(o.over); k < len(events) && events[k] != nil && events[k].Fret >= o.window.Low && events[k].Fret <= o.window.High {
			o.lickNote = events[k]
		}
		if pc.outsideKept(&o) {
			all = append(all, o)
		}
	}
	if last := len(all) - 1; last >= 0 && all[last].held {
		switch {
		case s.answer:
			all[last].ends = endsAsAnswer
		case pc.Form == chorus.QuestionAnswer:
			all[last].ends = endsAsQuestion
		}
	}
	for k := range all {
		o := &all[k]
		o.gap = k == 0 || 2*(o.tick-all[k-1].tick-all[k-1].ticks) >= beat
		last := k == len(all)-1
		o.rests = o.ticks >= beat || last || 2*(all[k+1].tick-o.tick-o.ticks) >= beat
		if !last && all[k+1].arrival >= 0 && !o.rests {
			o.leads = 1
			if k > 0 && !all[k-1].rests && all[k-1].arrival < 0 && o.arrival < 0 {
				all[k-1].leads = 2
			}
		}
	}
	for k := range all {
		o := &all[k]
		if o.lickNote != nil && (o.arrival >= 0 || o.leads == 1 || pc.ownCost(*o, o.lickNote.Sounding(pc.Instrument).Class(), false) >= never) {
			o.lickNote = nil // the tail of the lick is turned towards the landing
		}
	}
	return all
}

// outsideKept says whether an onset lies outside the kept blocks, and ends it where one begins.
func (pc *planContext) outsideKept(o *onset) bool {
	for _, b := range pc.Kept {
		if o.tick >= b.Start && o.tick < b.End() {
			return false
		}
		if o.tick < b.Start && o.tick+o.ticks > b.Start {
			o.ticks = b.Start - o.tick
		}
	}
	return o.ticks >= pc.Chart.Meter.BeatTicks()/8
}

// keptBefore is the last note of the kept blocks before a tick.
func (pc *planContext) keptBefore(tick int) *phrase.Event {
	var last *phrase.Event
	for _, b := range pc.Kept {
		for n := range b.Notes {
			if b.Notes[n].Tick < tick {
				last = &b.Notes[n]
			}
		}
	}
	return last
}

// onset is a note of a phrase whose pitch is still to be chosen.
type onset struct {
	tick, ticks int
	over        int
	strong      bool
	onBeat      bool
	// rests says that it is long or has silence after it, held that the phrase ends on it.
	rests, held bool
	// PlannedTarget is the index of the landing it is, -1 for none; leads how many notes before
	// one it is, 0 where it is not near.
	arrival, leads int
	// want is the pitch that the contour goes through.
	want float64
	// motifInterval is the interval that the motif has here, in semitones; unlike where there is none.
	motifInterval int
	// gap says that silence comes before it.
	gap    bool
	window neck.Window
	blend  float64
	// lickNote is the note of a lick that stands here.
	lickNote *phrase.Event
	peak     bool
	// ends says how the phrase ends here, by question or answer; empty where all the same.
	ends ending
}

// ending is how a phrase ends: a question off the chord or on its 5, an answer on R or 3 (common).
type ending string

const (
	endsAsQuestion ending = "question"
	endsAsAnswer   ending = "answer"
)

const noMotifInterval = 99
