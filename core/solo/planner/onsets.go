package planner

import (
	"undaris/core/neck"
	"undaris/core/phrase"
	"undaris/core/solo/chorus"
)

// onsets are the notes of the nth slot's phrase as its pattern has them, without those that a
// kept block stands over. The last one is as short as it may be; lengthenHolds lengthens it.
func (pc *planContext) onsets(slots []phraseSlot, n int, patterns []pattern, lick lickPattern) []onset {
	s, p := slots[n], patterns[n]
	all := []onset{}
	for k := range p.notes {
		// Where the hand moves nothing is struck before.
		if one := &p.notes[k]; one.arrival >= 0 && s.start+one.tick < pc.TargetTicks[one.arrival] && pc.handMoves(pc.TargetTicks[one.arrival]) {
			one.tick = pc.TargetTicks[one.arrival] - s.start
		}
	}
	for k, one := range p.notes {
		tick := s.start + one.tick
		beat := pc.Time.BeatTicksAt(tick)
		_, _, into := pc.Time.Place(tick)
		o := onset{tick: tick, beat: beat, over: pc.ChordAt(tick), strong: pc.Time.IsStrong(tick), onBeat: into == 0, arrival: one.arrival, repeat: one.repeat, motifInterval: noMotifInterval,
			window: pc.PositionAt(tick).Window, blend: pc.BlendAt(tick), held: k == len(p.notes)-1}
		if one.arrival >= 0 {
			o.over = pc.Targets[one.arrival].Over // an early one belongs to the chord that it rings into
		}
		switch {
		case o.held:
			o.ticks = int(shortestHold * float64(beat))
			if one.arrival >= 0 {
				o.ticks = max(o.ticks, pc.untilAfter(tick, one.arrival)+beat/2)
			}
			o.ticks = min(o.ticks, pc.Length-tick)
			// Beats of another meter may be longer than the room before the next phrase.
			if n+1 < len(slots) && len(patterns[n+1].notes) > 0 {
				if next := slots[n+1].start + patterns[n+1].first(); next > tick {
					o.ticks = min(o.ticks, next-tick)
				}
			}
		default:
			o.ticks = min(p.notes[k+1].tick, one.stop) - one.tick
		}
		if event := lick.eventOver(o.over, one.lickEvent); event != nil && event.Fret >= o.window.Low && event.Fret <= o.window.High {
			o.lickNote, o.lickWith = event, lick.withNote(o.over, one.lickEvent)
		}
		if pc.outsideKept(&o) {
			all = append(all, o)
		}
	}
	if last := len(all) - 1; last >= 0 && all[last].held {
		switch {
		case s.ending:
			all[last].ends = endsOnTonic
		case s.answer:
			all[last].ends = endsAsAnswer
		case pc.Form == chorus.QuestionAnswer:
			all[last].ends = endsAsQuestion
		}
	}
	return all
}

// untilAfter is how long a note lasts until the chord of a landing arrives; nothing where it
// begins with it or after.
func (pc *planContext) untilAfter(tick, arrival int) int {
	return max(pc.TargetTicks[arrival]-tick, 0)
}

// setRoles says of every onset what it does in its phrase, once all have their lengths.
func (pc *planContext) setRoles(all []onset) {
	for k := range all {
		all[k].leads = 0
	}
	for k := range all {
		o := &all[k]
		beat := o.beat
		o.gap = k == 0 || 2*(o.tick-all[k-1].tick-all[k-1].ticks) >= beat
		last := k == len(all)-1
		o.rests = o.ticks >= beat || last || 2*(all[k+1].tick-o.tick-o.ticks) >= beat
		o.repeat = o.repeat && !o.gap
		if !last && all[k+1].arrival >= 0 && all[k+1].lickNote == nil && !o.rests && !o.peak {
			o.leads = 1
			if k > 0 && !all[k-1].rests && all[k-1].arrival < 0 && o.arrival < 0 {
				all[k-1].leads = 2
			}
		}
	}
	for k := range all {
		o := &all[k]
		if o.lickNote != nil && o.arrival < 0 && !o.rests && pc.ownCost(*o, o.lickNote.Sounding(pc.Instrument).Class(), true) >= never {
			o.lickNote = nil
		}
	}
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
	return o.ticks >= o.beat/8
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
	// beat is the length of a counted beat where it begins.
	beat   int
	over   int
	strong bool
	onBeat bool
	// repeat says that it strikes the pitch before it again.
	repeat bool
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
	// lickWith are the notes that the lick has together with it: grace notes and double stops.
	lickWith []phrase.Event
	peak     bool
	// ends says how the phrase ends here, by question or answer; empty where all the same.
	ends ending
}

// ending is how a phrase ends: a question off the chord or on its 5, an answer on R or 3, a solo on the
// tonic (common).
type ending string

const (
	endsAsQuestion ending = "question"
	endsAsAnswer   ending = "answer"
	endsOnTonic    ending = "tonic"
)

const noMotifInterval = 99
