package planner

import (
	"slices"

	"undaris/core/analysis"
	"undaris/core/harmony"
	"undaris/core/phrase"
)

// lickPattern is a lick as it is laid into a slot, over each chord that it may come over: its
// notes in ticks from the start of the slot.
type lickPattern struct {
	name   string
	lick   int
	shift  int
	events []phrase.Event
	moved  map[int][]phrase.Event
}

// eventOver is the nth note over a chord, nil for none.
func (l lickPattern) eventOver(chord, n int) *phrase.Event {
	if n < 0 || n >= len(l.events) {
		return nil
	}
	if moved, ok := l.moved[chord]; ok {
		return &moved[n]
	}
	return &l.events[n]
}

// withNote is the other notes that the nth is played with over a chord: grace notes before it,
// and what is struck together with it.
func (l lickPattern) withNote(chord, n int) []phrase.Event {
	events := l.events
	if moved, ok := l.moved[chord]; ok {
		events = moved
	}
	found := []phrase.Event{}
	for k, e := range events {
		if k != n && (e.Tick == events[n].Tick && !e.Grace || e.Grace && e.End() == events[n].Tick) {
			found = append(found, e)
		}
	}
	return found
}

// fitLick lays a lick so many ticks from the start of a slot. Landings within it fall on its own
// notes where those are tones of the chord, else a note of it is changed; a landing after it is
// gone on to in the pattern's own rhythm. It says whether at least three quarters stand.
func (pc *planContext) fitLick(n, shift int, s phraseSlot, p pattern, room lickRoom) (pattern, lickPattern, bool) {
	none := lickPattern{}
	beat := s.beat
	w := pc.PositionAt(s.start).Window
	set := pc.placedLick(n, w, s.in).phrase.Events
	if len(set) < minLickNotes { // what fitted in one key or meter need not in another
		return p, none, false
	}
	first, last := set[0].Tick+shift, set[len(set)-1].Tick+shift
	if first < -room.before || first > 2*beat || last > room.last || s.start+first < -pc.Chart.Meter.BarTicks() {
		return p, none, false
	}
	laid := lickPattern{name: pc.Licks[n].Name, lick: n, shift: shift, moved: map[int][]phrase.Event{}}
	laid.events = shifted(set, s.start+shift)
	for chord, moved := range pc.movedLicks(n, w, s.in) {
		laid.moved[chord] = shifted(moved.Events, s.start+shift)
	}
	next := pattern{curve: p.curve}
	for _, one := range p.notes { // what must come before it
		if one.arrival >= 0 && one.tick < first-beat/2 {
			next.notes = append(next.notes, one)
		}
	}
	from := len(next.notes)
	clashes := 0
	for k, e := range set {
		if e.Grace || k > 0 && e.Tick == set[k-1].Tick {
			continue
		}
		one := freeNote(e.Tick + shift)
		one.lickEvent, one.stop = k, e.End()+shift
		next.notes = append(next.notes, one)
		chord := pc.ChordAt(s.start + one.tick)
		if is := pc.Chords[chord].Class[laid.eventOver(chord, k).Sounding(pc.Instrument).Class()]; is == harmony.Outside || is == harmony.Suspension {
			clashes++
		}
	}
	own := len(next.notes) - from
	if own < minLickNotes || clashes*maxClashRatio > own {
		return p, none, false
	}
	changed := 0
	for _, due := range p.notes {
		if due.arrival < 0 || due.tick < first-beat/2 {
			continue
		}
		arrives := pc.TargetTicks[due.arrival] - s.start
		if arrives > last+beat/2 {
			break
		}
		if !pc.landWithin(&next, from, due, arrives, laid) {
			changed++
		}
	}
	if float64(own-changed) < minShareKept*float64(own) {
		return p, none, false
	}
	for _, one := range p.notes { // what is still to be landed on
		if one.tick >= next.hold()+beat/2 && pc.arrivesAfter(p, one, s, last+beat/2) {
			one.lickEvent = -1
			next.notes = append(next.notes, one)
		}
	}
	for k := range next.notes {
		if k+1 < len(next.notes) && next.notes[k].stop > next.notes[k+1].tick {
			next.notes[k].stop = noStop
		}
	}
	return next, laid, true
}

// arrivesAfter says whether a note of a pattern is a landing on a chord that arrives after a tick
// of the slot, or leads to one.
func (pc *planContext) arrivesAfter(p pattern, one patternNote, s phraseSlot, tick int) bool {
	for _, other := range p.notes {
		if other.arrival >= 0 && other.tick >= one.tick && pc.TargetTicks[other.arrival]-s.start > tick {
			return true
		}
	}
	return false
}

// landWithin makes one of the notes of a lick, from an index on, the landing on a chord that
// arrives: its own note where that is a tone of the chord. It says whether the note stays.
func (pc *planContext) landWithin(p *pattern, from int, due patternNote, arrives int, laid lickPattern) bool {
	beat := pc.Time.BeatTicksAt(pc.TargetTicks[due.arrival])
	over := pc.Targets[due.arrival].Over
	for k := from; k < len(p.notes); k++ {
		one := &p.notes[k]
		until := one.stop
		if k+1 < len(p.notes) {
			until = min(until, p.notes[k+1].tick)
		}
		if !analysis.InLandingWindow(one.tick, until, arrives, beat) {
			continue
		}
		one.arrival = due.arrival
		event := laid.eventOver(over, one.lickEvent)
		if event != nil && pc.Chords[over].Class[event.Sounding(pc.Instrument).Class()] == harmony.ChordTone {
			return true
		}
		one.lickEvent = -1
		return false
	}
	p.land(beat, dueLanding{index: due.arrival, arrives: arrives, tick: arrives})
	return false
}

// shifted are notes so many ticks later.
func shifted(events []phrase.Event, by int) []phrase.Event {
	all := slices.Clone(events)
	for n := range all {
		all[n].Tick += by
	}
	return all
}
