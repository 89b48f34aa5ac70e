package planner

import (
	"undaris/core/analysis"
	"undaris/core/harmony"
)

// dueLanding is a landing of a pattern: when its chord arrives and when its note is struck,
// in ticks from the start of the slot.
type dueLanding struct {
	index         int
	arrives, tick int
}

// phraseStart is where a phrase may begin: so many beats from the start of its slot, and on
// the off-beat or not.
type phraseStart struct {
	beats   int
	offBeat bool
	// weight is how often it is drawn; overChange where a chord arrives at the start of the
	// slot, which the first note may land on early, on the beat, late, or not at all.
	weight, overChange float64
}

// phraseStarts are those of a bar of four beats, beginning with the upbeat (our choice: the
// downbeat is the dullest place to begin on, so it is rare).
var phraseStarts = []phraseStart{
	{-1, false, 0.19, 0.42},
	{-1, true, 0.20, 0.32},
	{0, false, 0.02, 0.03},
	{0, true, 0.18, 0.05},
	{1, false, 0.16, 0.03},
	{1, true, 0.16, 0.08},
	{2, false, 0.09, 0.06},
}

// How often a landing comes an eighth early and rings over the beat, or late, where it may
// (ours, for what players do).
const (
	oftenEarly = 0.23
	oftenLate  = 0.02
	// usedStart is how much less often a phrase begins where another of the chorus does.
	usedStart           = 0.15
	usedStartOverChange = 0.4
)

// start draws where the phrase of a slot begins, and whether that leaves a chord that arrives
// at the start of the slot to the band.
func (d *rhythmDraw) start(s phraseSlot) (tick int, silent bool) {
	beat := s.beat
	arrives := len(s.arrivals) > 0 && d.TargetTicks[s.arrivals[0]] == s.start
	at := func(one phraseStart) int {
		if one.offBeat {
			return one.beats*beat + d.offBeat()
		}
		return one.beats * beat
	}
	chosen := drawn(phraseStarts, d.r, func(one phraseStart) float64 {
		weight := one.weight
		if arrives {
			weight = one.overChange
		}
		switch {
		case !d.starts[at(one)]:
		case arrives:
			weight *= usedStartOverChange
		default:
			weight *= usedStart
		}
		switch {
		case one.offBeat && (!d.offBeats() || one.beats < 0 && arrives && d.handMoves(s.start)), -at(one) > d.room, at(one) > s.ticks/2, 2*at(one)+3*beat > 2*s.ticks:
			return 0
		}
		return weight
	})
	tick = at(chosen)
	if -tick > d.room { // only the downbeat is left
		tick = 0
	}
	d.starts[tick] = true
	return tick, arrives && tick > beat
}

// handMoves says whether the hand shifts at a tick, so that nothing rings over it.
func (pc *planContext) handMoves(tick int) bool {
	return tick > 0 && pc.PositionAt(tick).Window != pc.PositionAt(tick-1).Window
}

// landings draws when the landings of a slot come whose phrase begins at one tick and would
// be over at another.
func (d *rhythmDraw) landings(s phraseSlot, start, end int, silent bool) []dueLanding {
	beat := s.beat
	all := []dueLanding{}
	for n, index := range s.arrivals {
		at := d.TargetTicks[index] - s.start
		if at < start-beat || silent && at == 0 || at+beat < start {
			continue
		}
		if n > 0 && at >= end+beat && d.r.Float64() < oftenGivenUp && n == len(s.arrivals)-1 {
			continue
		}
		l := dueLanding{index: index, arrives: at, tick: at}
		crowded := n > 0 && at-(d.TargetTicks[s.arrivals[n-1]]-s.start) < 2*beat ||
			n+1 < len(s.arrivals) && d.TargetTicks[s.arrivals[n+1]]-s.start-at < 2*beat
		early := at - (beat - d.offBeat())
		switch draws := d.r.Float64(); {
		case start > at:
			l.tick = start
		case start == early && at == 0 && at-early <= analysis.EarlyTicks:
			l.tick = early
		case crowded || !d.offBeats() || d.handMoves(s.start+at) || at-early > analysis.EarlyTicks:
		case draws < oftenEarly && early >= start && early >= -d.room:
			l.tick = early
		case draws > 1-oftenLate && at > start && at+beat+d.offBeat() <= s.ticks:
			l.tick = at + d.offBeat()
		}
		all = append(all, l)
	}
	return all
}

// land puts a landing into the pattern: on a note that is there, on one nearby that is moved,
// or on a new one. An early one rings over the beat; before a late one the line breathes.
func (p *pattern) land(beat int, l dueLanding) {
	at, nearest := -1, beat/2+1
	for n, one := range p.notes {
		if off := max(one.tick-l.tick, l.tick-one.tick); one.arrival < 0 && off < nearest {
			at, nearest = n, off
		}
	}
	if at < 0 {
		at = len(p.notes)
		p.notes = append(p.notes, freeNote(l.tick))
	}
	p.notes[at].tick, p.notes[at].arrival, p.notes[at].stop, p.notes[at].repeat = l.tick, l.index, noStop, false
	p.sortNotes()
	kept := p.notes[:0:0]
	for _, one := range p.notes {
		switch {
		case one.arrival >= 0:
		case l.tick < l.arrives && one.tick > l.tick && one.tick < l.arrives+beat/2:
			continue // it rings over the beat
		case l.tick > l.arrives && one.tick >= l.arrives && one.tick < l.tick:
			continue
		case one.tick < l.arrives && l.tick >= l.arrives:
			one.stop = min(one.stop, max(l.arrives, one.tick+1))
		case one.tick == l.tick:
			continue
		}
		kept = append(kept, one)
	}
	for n := range kept {
		if n+1 < len(kept) && kept[n].stop >= kept[n+1].tick {
			kept[n].stop = noStop
		}
	}
	p.notes = kept
}

// assignLandings makes the first note that is heard as a chord arrives its landing, where none
// was meant.
func (pc *planContext) assignLandings(phrases []draftPhrase) {
	landed := map[int]bool{}
	for _, p := range phrases {
		for _, o := range p.onsets {
			landed[o.arrival] = true
		}
	}
	for index, at := range pc.TargetTicks {
		if landed[index] {
			continue
		}
		beat := pc.Time.BeatTicksAt(at)
		for len(phrases) > 1 && startsBefore(phrases[1], at-beat) {
			phrases = phrases[1:] // what is over is looked at no more
		}
		stopBefore(phrases, at)
		o := firstHeard(phrases, at, beat)
		if o != nil && o.tick < at && pc.handMoves(at) {
			o.ticks = at - o.tick
			o = firstHeard(phrases, at, beat)
		}
		if o != nil && o.arrival < 0 {
			o.arrival, o.over, o.repeat = index, pc.Targets[index].Over, false
			if o.lickNote != nil && pc.Chords[o.over].Class[o.lickNote.Sounding(pc.Instrument).Class()] != harmony.ChordTone {
				o.lickNote = nil
			}
		}
	}
}

// stopBefore ends what began too long before a tick to be heard as landing there, so that nothing of the chord
// before rings into the next.
func stopBefore(phrases []draftPhrase, at int) {
	for _, p := range phrases {
		for n := range p.onsets {
			if o := &p.onsets[n]; o.tick < at-analysis.EarlyTicks && o.tick+o.ticks > at {
				o.ticks = at - o.tick
			} else if o.tick >= at {
				return
			}
		}
	}
}

// startsBefore says whether a phrase has begun by a tick.
func startsBefore(p draftPhrase, tick int) bool {
	return len(p.onsets) > 0 && p.onsets[0].tick < tick
}

// firstHeard is the first onset that is heard as landing on a chord that arrives at a tick, nil
// for none.
func firstHeard(phrases []draftPhrase, at, beat int) *onset {
	for _, p := range phrases {
		for n := range p.onsets {
			o := &p.onsets[n]
			if o.tick > at+beat {
				return nil
			}
			if analysis.InLandingWindow(o.tick, o.tick+o.ticks, at, beat) {
				return o
			}
		}
	}
	return nil
}
