package planner

import (
	"undaris/core/analysis"
	"undaris/core/phrase"
)

// returning is a pattern that comes back in another slot, whose landings may lie elsewhere. Its
// head stays; its last beats are often new.
func (d *rhythmDraw) returning(s phraseSlot, origin pattern) pattern {
	beat := s.beat
	p := pattern{curve: origin.curve}
	cut := noStop
	if d.r.Float64() < oftenNewTail {
		cut = max(origin.hold()-tailBeats*beat, origin.first()+beat)
	}
	for _, one := range origin.notes {
		if one.tick >= cut || one.tick < -d.room {
			continue
		}
		one.arrival, one.lickEvent = -1, -1
		p.notes = append(p.notes, one)
	}
	if len(p.notes) == 0 {
		return d.best(s, func() pattern { p := d.fresh(s); p.curve = origin.curve; return p })
	}
	due := d.landings(s, p.first(), max(origin.hold(), p.first()+beat), p.first() > beat)
	if last := p.hold(); cut != noStop {
		hold := origin.hold() + []int{0, 0, -beat / 2, beat / 2, beat}[d.r.IntN(5)]
		if !d.offBeats() {
			hold = floorTo(hold, beat)
		} else if rest := hold - floorTo(hold, beat); rest != 0 {
			hold += d.offBeat() - rest
		}
		if len(due) > 0 {
			hold = max(hold, due[len(due)-1].tick)
		}
		hold = min(max(min(hold, d.latestHold(s, p.first())), last+beat/2), s.ticks-beat/2)
		tail := pattern{}
		share := float64(hold-last) / float64(max(hold-p.first(), 1))
		tail.fill(d, last, hold, 1+share*max(d.wanted(s)-1, 1))
		p.notes[len(p.notes)-1].stop = noStop
		p.notes = append(p.notes, tail.notes[1:]...)
		p.notes = append(p.notes, freeNote(hold))
	} else if len(due) > 0 && due[len(due)-1].tick > last {
		p.notes = append(p.notes, freeNote(due[len(due)-1].tick))
	}
	for _, l := range due {
		p.land(beat, p.keepingHead(l, beat))
	}
	p.separate(beat, d.subdivisionIn(s.in.Meter).PerBeat)
	return p
}

// keepingHead is a landing on the note of the pattern that is heard as it anyway, where there is
// one: so a phrase that returns keeps its rhythm.
func (p pattern) keepingHead(l dueLanding, beat int) dueLanding {
	for n, one := range p.notes {
		until := one.stop
		if n+1 < len(p.notes) {
			until = min(until, p.notes[n+1].tick)
		}
		if one.arrival < 0 && analysis.InLandingWindow(one.tick, until, l.arrives, beat) {
			l.tick = one.tick
			return l
		}
	}
	return l
}

// motifPattern is the rhythm of the notes that a chorus begins with, as far as they lie in its
// first slot.
func motifPattern(s phraseSlot, notes []phrase.Event, curve contour) pattern {
	p := pattern{curve: curve}
	for _, e := range notes {
		if e.Tick-s.start < s.ticks && (len(p.notes) == 0 || e.Tick-s.start > p.hold()) {
			p.notes = append(p.notes, freeNote(e.Tick-s.start))
		}
	}
	return p
}
